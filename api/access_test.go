package api_test

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	. "mezzadro/api"
	"mezzadro/house/firm"
	"mezzadro/house/ledger"
	"mezzadro/house/walks"
	"mezzadro/house/work"
	"mezzadro/store"

	"github.com/alexedwards/scs/v2"
	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
)

// visitor is a browser with its cookies.
type visitor struct {
	h      *opened
	cookie string
}

// do sends a request as the visitor.
func (v *visitor) do(method, path string, body any) (int, string) {
	v.h.t.Helper()
	var r *http.Request
	if body == nil {
		r = httptest.NewRequest(method, "/api/v1"+path, nil)
	} else {
		b, isText := body.(string)
		kind := "text/csv"
		if !isText {
			j, err := json.Marshal(body)
			if err != nil {
				v.h.t.Fatal(err)
			}
			b, kind = string(j), "application/json"
		}
		r = httptest.NewRequest(method, "/api/v1"+path, strings.NewReader(b))
		r.Header.Set("Content-Type", kind)
	}
	if v.cookie != "" {
		r.Header.Set("Cookie", v.cookie)
	}
	w := httptest.NewRecorder()
	v.h.site.ServeHTTP(w, r)
	for _, c := range w.Result().Cookies() {
		if v.cookie = c.Name + "=" + c.Value; c.MaxAge < 0 || c.Value == "" {
			v.cookie = ""
		}
		if !c.HttpOnly || c.SameSite != http.SameSiteLaxMode {
			v.h.t.Errorf("the cookie is open to scripts or other sites: %v", c)
		}
	}
	return w.Code, w.Body.String()
}

func (v *visitor) must(method, path string, body any) string {
	v.h.t.Helper()
	code, b := v.do(method, path, body)
	if code >= 300 {
		v.h.t.Fatalf("%s %s: %d %s", method, path, code, b)
	}
	return b
}

const longWords = "four quiet mulberry trees"

// staff is an owner with a planner and a crew member, each signed in.
func (h *opened) staff() map[string]*visitor {
	h.t.Helper()
	owner := &visitor{h: h}
	owner.must("POST", "/me/owner", obj{"login": "ilda", "name": "Ilda", "password": longWords})
	out := map[string]*visitor{firm.RoleOwner: owner, "": {h: h}}
	for _, role := range []string{firm.RolePlanner, firm.RoleCrew} {
		var i firm.Invited
		if err := json.Unmarshal([]byte(owner.must("POST", "/accounts", obj{"login": role + "@Arvenna", "name": "The " + role, "role": role})), &i); err != nil {
			h.t.Fatal(err)
		}
		v := &visitor{h: h}
		v.must("POST", "/me/invitation", obj{"token": i.Token, "password": longWords + role})
		out[role] = v
	}
	return out
}

// TestAccessTable goes through every operation of the description as every role and as nobody: who may not gets 401 or
// 403, who may gets neither; an operation that stands in no list is found.
func TestAccessTable(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	villa, _ := h.villa()
	staff := h.staff()
	staff[firm.RoleOwner].must("PUT", "/rates", obj{"currency": "EUR", "digits": 2, "hour": 4000, "visit": 0, "waste_m3": 0, "markup": 0, "tax": 0,
		"valid_days": 30, "plans": "all", "stuff": []obj{}, "planners": true, "version": 0}) // planners read the ledger's money too
	ended, link := &visitor{h: h}, &visitor{h: h}
	ended.must("POST", "/me/session", obj{"login": "crew@arvenna", "password": longWords + "crew"})
	given := ended.cookie
	ended.must("DELETE", "/me/session", nil)
	ended.cookie = given // a copy of a session that was signed out
	var l ledger.ClientLink
	if err := json.Unmarshal([]byte(staff[firm.RolePlanner].must("POST", fmt.Sprintf("/properties/%d/client-links", villa.ID), obj{"days": 90})), &l); err != nil {
		t.Fatal(err)
	}
	link.must("POST", "/client", obj{"token": l.Token}) // the cookie it gave stays with the visitor
	staff["signed out"], staff["a client"] = ended, link
	roles := map[string]string{}
	// What ends a session or bounds tries is tried alone.
	apart := []string{"sign-out", "sign-out-everywhere", "sign-in", "first-owner", "take-invitation", "client-page", "open-client-page", "opened-client-page", "passkey-sign-in", "begin-passkey-sign-in", "change-password"}
	for path, item := range operations() {
		for method, op := range item {
			need, known := RoleOf(op)
			if roles[op.OperationID] = need; !known {
				t.Errorf("%s does not say who may do it", op.OperationID)
			}
			if slices.Contains(apart, op.OperationID) {
				continue
			}
			at := strings.NewReplacer("/api/v1", "", "{id}", "987654", "{plant}", "987654", "{order}", "987654", "{hash}", strings.Repeat("0", 64)).Replace(path)
			for role, v := range staff {
				code, answer := v.do(method, at, sampleOf(op))
				want := 0
				switch {
				case need == "anyone":
				case !slices.Contains(firm.Roles, role): // nobody, who signed out, and who only has a client's link
					want = http.StatusUnauthorized
				case slices.Index(firm.Roles, role) < slices.Index(firm.Roles, need):
					want = http.StatusForbidden
				}
				refused := code == http.StatusUnauthorized || code == http.StatusForbidden
				if want == 0 && refused || want != 0 && code != want {
					t.Errorf("%s as %q: %d, want %d (0: let in): %.120s", op.OperationID, role, code, want, answer)
				}
			}
		}
	}
	// Who may do what, as a firm would say it: not read from the program.
	for want, ids := range map[string]string{
		"anyone":  "sign-in sign-out first-owner take-invitation client-page open-client-page opened-client-page passkey-sign-in begin-passkey-sign-in me",
		"crew":    "tick-order keep-look decide add-photo sheet walk plants orders reckon-damage reckon-cause products passkeys add-passkey remove-passkey",
		"planner": "add-property change-plant put-order accept-proposal send-letter letters uses-pdf shopping add-product client-links move-today",
		"owner":   "everything backup back-up change-firm accounts guesses add-account remove-account end-sessions removed erase",
	} {
		for _, id := range strings.Fields(ids) {
			if roles[id] != want {
				t.Errorf("%s is for %q, want %q", id, roles[id], want)
			}
		}
	}
	for path, item := range operations() {
		for method, op := range item {
			// The time for a body to come in bounds the handler too: the connection's deadline stays, and ends the request.
			if op.BodyReadTimeout < time.Minute {
				t.Errorf("%s %s is called off after %v, however long its work takes", method, path, op.BodyReadTimeout)
			}
		}
	}
	if len(roles) < 150 {
		t.Errorf("only %d operations were gone through", len(roles))
	}
}

// operations are all that are registered, by path and method.
func operations() map[string]map[string]*huma.Operation {
	out := map[string]map[string]*huma.Operation{}
	for path, item := range (&Server{}).Register(chi.NewRouter()).OpenAPI().Paths {
		out[path] = map[string]*huma.Operation{}
		for method, op := range map[string]*huma.Operation{"GET": item.Get, "PUT": item.Put, "POST": item.Post, "DELETE": item.Delete} {
			if op != nil {
				out[path][method] = op
			}
		}
	}
	return out
}

// sampleOf is what one sends to an operation as an example; nil for nothing.
func sampleOf(op *huma.Operation) any {
	if op.RequestBody == nil {
		return nil
	}
	for _, content := range op.RequestBody.Content {
		return content.Example
	}
	return nil
}

// TestSignIn: the first owner closes the door behind them; wrong words do not open it, nor one-time links twice, nor a
// session that was set before signing in, nor one of somebody who was taken out.
func TestSignIn(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	stranger := &visitor{h: h}
	if got := stranger.must("GET", "/me", nil); !strings.Contains(got, `"needs":"owner"`) {
		t.Errorf("before there is an owner: %s", got)
	}
	stranger.must("GET", "/firm", nil) // on this machine alone, all goes
	for _, in := range []obj{
		{"login": "ilda", "name": "Ilda", "password": "short"}, {"login": "ilda", "name": "Ilda", "password": "aaaaaaaaaaaa"},
		{"login": " ", "name": "Ilda", "password": longWords}, {"login": "mulberries", "name": "Ilda", "password": "Mulberries"},
		{"login": "ilda", "name": "Ilda", "password": "password123"}, {"login": "ilda", "name": "Ilda", "password": "qwertyuiop1"},
		{"login": "ilda", "name": "Ilda Moretti", "password": "Moretti1970"}, {"login": "ilda", "name": "Ilda", "password": "mezzadro2026"},
	} {
		if code, b := stranger.do("POST", "/me/owner", in); code != 422 {
			t.Errorf("%v: %d %s", in, code, b)
		}
	}
	staff := h.staff()
	owner, crew := staff[firm.RoleOwner], staff[firm.RoleCrew]
	if code, _ := stranger.do("POST", "/me/owner", obj{"login": "thief", "name": "Thief", "password": longWords}); code != 409 {
		t.Errorf("a second owner: %d", code)
	}
	if code, _ := stranger.do("GET", "/firm", nil); code != 401 {
		t.Errorf("nobody reads the firm: %d", code)
	}
	for _, in := range []obj{{"login": "ilda", "password": "four loud mulberry trees"}, {"login": "nobody", "password": longWords}, {"login": "", "password": ""}} {
		if code, b := stranger.do("POST", "/me/session", in); code != 422 || !strings.Contains(b, "do not go together") || stranger.cookie != "" {
			t.Errorf("%v: %d %s %q", in, code, b, stranger.cookie)
		}
	}
	again := &visitor{h: h, cookie: "mezzadro=set-by-somebody-else"}
	again.must("POST", "/me/session", obj{"login": " ILDA ", "password": longWords})
	if strings.Contains(again.cookie, "set-by-somebody-else") {
		t.Error("a session that was set before is signed in")
	}
	again.must("GET", "/accounts", nil)
	again.must("DELETE", "/me/session", nil)
	if code, _ := again.do("GET", "/accounts", nil); code != 401 {
		t.Errorf("signed out: %d", code)
	}
	owner.must("GET", "/accounts", nil)

	var list Run[firm.Account]
	if err := json.Unmarshal([]byte(owner.must("GET", "/accounts", nil)), &list); err != nil || len(list.Items) != 3 {
		t.Fatalf("accounts: %+v %v", list, err)
	}
	id := map[string]firm.Account{}
	for _, a := range list.Items {
		id[a.Role] = a
	}
	if code, b := owner.do("DELETE", fmt.Sprintf("/accounts/%d", id["owner"].ID), nil); code != 409 || !strings.Contains(b, "last owner") {
		t.Errorf("the last owner goes: %d %s", code, b)
	}
	if code, b := owner.do("PUT", fmt.Sprintf("/accounts/%d", id["owner"].ID), obj{"name": "Ilda", "role": "crew", "version": 1}); code != 409 {
		t.Errorf("the last owner becomes crew: %d %s", code, b)
	}
	crew.must("GET", "/frame", nil)
	owner.must("DELETE", fmt.Sprintf("/accounts/%d", id["crew"].ID), nil)
	if code, _ := crew.do("GET", "/frame", nil); code != 401 {
		t.Errorf("somebody who was taken out: %d", code)
	}
	owner.must("POST", fmt.Sprintf("/accounts/%d/restore", id["crew"].ID), nil)
	crew.must("POST", "/me/session", obj{"login": "crew@arvenna", "password": longWords + "crew"})
	crew.must("GET", "/frame", nil)

	var link firm.Invited
	if err := json.Unmarshal([]byte(owner.must("POST", fmt.Sprintf("/accounts/%d/invitation", id["crew"].ID), nil)), &link); err != nil {
		t.Fatal(err)
	}
	crew.must("POST", "/me/invitation", obj{"token": link.Token, "password": "a new long word here"})
	if code, b := stranger.do("POST", "/me/invitation", obj{"token": link.Token, "password": "yet another long word"}); code != 409 || !strings.Contains(b, "was used") {
		t.Errorf("a link used twice: %d %s", code, b)
	}
	second := &visitor{h: h}
	second.must("POST", "/me/session", obj{"login": "crew@arvenna", "password": "a new long word here"})
	second.must("DELETE", "/me/sessions", nil)
	if code, _ := crew.do("GET", "/frame", nil); code != 401 {
		t.Errorf("signed out everywhere: %d", code)
	}
}

// TestPricesKept: the crew reads which products there are and how large their packs, and not what they cost.
func TestPricesKept(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	staff := h.staff()
	card := maps.Clone(sampleOf(operations()["/api/v1/products"]["POST"]).(map[string]any))
	card["packs"] = []obj{{"size": 5, "price": 47.25}}
	staff[firm.RolePlanner].must("POST", "/products", card)
	if got := staff[firm.RolePlanner].must("GET", "/products", nil); !strings.Contains(got, "47.25") {
		t.Errorf("the planner: %s", got)
	}
	if got := staff[firm.RoleCrew].must("GET", "/products", nil); strings.Contains(got, "47.25") || !strings.Contains(got, `"size":5`) {
		t.Errorf("the crew: %s", got)
	}
}

// TestGuessing: after some wrong tries from one address, at whatever names, no more are taken for a while.
func TestGuessing(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	owner := h.staff()[firm.RoleOwner]
	thief := &visitor{h: h}
	last := 0
	for n := range TriesMost + 5 {
		last, _ = thief.do("POST", "/me/session", obj{"login": fmt.Sprint("guess ", max(0, n-5)), "password": "guess"})
	}
	if last != http.StatusTooManyRequests {
		t.Errorf("after %d tries: %d", TriesMost+5, last)
	}
	var told Run[firm.Guesses]
	err := json.Unmarshal([]byte(owner.must("GET", "/accounts/guesses", nil)), &told)
	if err != nil || len(told.Items) != 1 || told.Items[0].Login != "guess 0" || told.Items[0].Count != 6 {
		t.Errorf("the owner is told %+v, %v", told.Items, err)
	}
}

// TestWhoDidWhat: a job that is ticked off and a verdict say by whom, and the plant's story tells it.
func TestWhoDidWhat(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	staff := h.staff()
	staff[firm.RolePlanner].must("PUT", fmt.Sprintf("/plants/%d", plant.ID), obj{"property_id": property.ID, "species": plant.Species, "height_m": plant.HeightM + 0.3, "version": plant.Version})
	var o work.OrderDetail
	made := staff[firm.RolePlanner].must("POST", "/orders", obj{"property_id": property.ID, "title": "Tie it in", "minutes": 10, "plants": []int64{plant.ID},
		"spans": []obj{{"from": h.today.String(), "to": (h.today + 5).String()}}})
	if err := json.Unmarshal([]byte(made), &o); err != nil {
		t.Fatal(err)
	}
	crew := staff[firm.RoleCrew]
	crew.must("PUT", fmt.Sprintf("/orders/%d/state", o.ID), obj{"state": "done", "took_minutes": 12, "version": o.Version})
	var s walks.Story
	if err := json.Unmarshal([]byte(crew.must("GET", fmt.Sprintf("/plants/%d/story", plant.ID), nil)), &s); err != nil {
		t.Fatal(err)
	}
	if len(s.Deeds) != 2 || s.Deeds[0].Name != "The crew" || s.Deeds[1].Name != "The planner" || time.Since(s.Deeds[0].At) > time.Minute {
		t.Errorf("who did what: %+v", s.Deeds)
	}
	if k := slices.IndexFunc(s.Jobs, func(j work.Order) bool { return j.ID == o.ID }); k < 0 || s.Jobs[k].By != "The crew" {
		t.Errorf("who ticked it off: %+v", s.Jobs)
	}
}

// TestClientLink: a client reads what was found and planned by a link that nobody guesses, and nothing else; it ends
// with its day and when it is revoked.
func TestClientLink(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	staff := h.staff()
	planner, client := staff[firm.RolePlanner], staff[""]
	planner.must("POST", "/orders", obj{"property_id": property.ID, "title": "Tie it in", "minutes": 10, "plants": []int64{plant.ID}, "note": "Between us: the client never pays",
		"spans": []obj{{"from": h.today.String(), "to": (h.today + 5).String()}}})
	var l ledger.ClientLink
	if err := json.Unmarshal([]byte(planner.must("POST", fmt.Sprintf("/properties/%d/client-links", property.ID), obj{"days": 10})), &l); err != nil || len(l.Token) < 30 {
		t.Fatalf("%+v %v", l, err)
	}
	page := client.must("GET", "/client/"+l.Token, nil)
	if !strings.Contains(page, "Tie it in") || strings.Contains(page, "never pays") || !strings.Contains(page, property.Name) {
		t.Errorf("what the client reads: %s", page)
	}
	opened := &visitor{h: h}
	if code, _ := opened.do("GET", "/client", nil); code != 404 {
		t.Errorf("without a link: %d", code)
	}
	if opened.must("POST", "/client", obj{"token": l.Token}); opened.must("GET", "/client", nil) != page || strings.Contains(opened.cookie, l.Token) {
		t.Errorf("once opened it is not read without the link, or the cookie %q holds it", opened.cookie)
	}
	if code, _ := opened.do("GET", "/frame", nil); code != 401 {
		t.Errorf("who opened a link is let in: %d", code)
	}
	if list := planner.must("GET", fmt.Sprintf("/properties/%d/client-links", property.ID), nil); strings.Contains(list, l.Token) || !strings.Contains(list, l.Until.String()) {
		t.Errorf("the links: %s", list)
	}
	if code, _ := client.do("GET", "/client/"+l.Token[:20]+"AAAAAAAAAAAA", nil); code != 404 {
		t.Errorf("a guess: %d", code)
	}
	h.today += 11
	if code, _ := client.do("GET", "/client/"+l.Token, nil); code != 404 {
		t.Errorf("after its last day: %d", code)
	}
	h.today -= 11
	planner.must("DELETE", fmt.Sprintf("/client-links/%d", l.ID), nil)
	if code, _ := client.do("GET", "/client/"+l.Token, nil); code != 404 {
		t.Errorf("revoked: %d", code)
	}
	if code, _ := opened.do("GET", "/client", nil); code != 404 {
		t.Errorf("opened before it was revoked: %d", code)
	}
}

// TestDecideOnWhatWasSeen: a verdict is accepted on the checks that were seen; where somebody found more meanwhile,
// nothing is decided and what is kept is told.
func TestDecideOnWhatWasSeen(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	property, plant := h.villa()
	walk := ok[walks.Walk](h, "POST", "/walks", obj{"property_id": property.ID})
	at := fmt.Sprintf("/walks/%d/plants/%d", walk.ID, plant.ID)
	seen := ok[walks.Found](h, "PUT", at+"/checks", obj{"checks": []obj{{"kind": "scratch", "height_m": 1, "result": "green"}}})
	ok[walks.Found](h, "PUT", at+"/checks", obj{"base": seen.Rev, "checks": []obj{{"kind": "scratch", "height_m": 1, "result": "green"}, {"kind": "scratch", "height_m": 1.8, "result": "brown"}}})
	code, b := h.do("POST", at+"/verdict", obj{"decision": "accepted", "rev": seen.Rev})
	if code != 409 || !strings.Contains(string(b), "brown") {
		t.Errorf("decided on what was not seen: %d %s", code, b)
	}
	if d := ok[walks.Decided](h, "POST", at+"/verdict", obj{"decision": "accepted", "rev": seen.Rev + 1}); d.Verdict.Kind == "" {
		t.Errorf("decided on what was seen: %+v", d)
	}
}

// counted counts what is read of a body.
type counted struct{ n int }

func (c *counted) Read(b []byte) (int, error) {
	c.n += len(b)
	clear(b)
	return len(b), nil
}

// TestNothingReadOfStrangers: who is not let in cannot fill the memory: nothing of what they send is read.
func TestNothingReadOfStrangers(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	h.staff()
	for _, path := range []string{"/plants", "/species", "/orders/1/photos", "/properties/1/plan/picture"} {
		body := &counted{}
		r := httptest.NewRequest("POST", "/api/v1"+path, body)
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("Idempotency-Key", "of-a-stranger")
		w := httptest.NewRecorder()
		h.site.ServeHTTP(w, r)
		if w.Code != http.StatusUnauthorized || body.n > 0 {
			t.Errorf("%s: %d, after %d bytes", path, w.Code, body.n)
		}
	}
}

// TestIdleSessions: a session that nobody used for more than two weeks is over; one that is used goes on.
func TestIdleSessions(t *testing.T) {
	t.Parallel()
	h := newHouse(t)
	who := h.staff()[firm.RoleOwner]
	who.must("GET", "/firm", nil)
	today := time.Now().Unix() / 86400
	for _, c := range []struct {
		daysAgo int64
		code    int
	}{{13, 200}, {15, 401}} {
		lastUsed(t, h, today-c.daysAgo)
		if code, b := who.do("GET", "/firm", nil); code != c.code {
			t.Errorf("last used %d days ago: %d %s", c.daysAgo, code, b)
		}
	}
}

// lastUsed has all sessions be used on a day for the last time.
func lastUsed(t *testing.T, h *opened, day int64) {
	t.Helper()
	codec := scs.GobCodec{} // as they are kept
	if err := h.server.Estate.Store.Write(context.Background(), func(tx store.Tx) error {
		var rows []struct {
			Token string `db:"token"`
			Data  []byte `db:"data"`
		}
		if err := tx.Select(&rows, `SELECT token, data FROM session`); err != nil {
			return err
		}
		for _, r := range rows {
			until, values, err := codec.Decode(r.Data)
			if err != nil {
				return err
			}
			values["used"] = day
			b, err := codec.Encode(until, values)
			if err != nil {
				return err
			}
			if _, err := tx.Exec(`UPDATE session SET data = ? WHERE token = ?`, b, r.Token); err != nil {
				return err
			}
		}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
}
