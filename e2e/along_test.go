package e2e

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"
)

// situations are what may be found at a plant: each list of checks with heights as shares of the plant's own.
const situations = `[
	[],
	[{kind: 'scratch', height_m: 0.5, result: 'green'}],
	[{kind: 'scratch', height_m: 0.8, result: 'brown'}, {kind: 'scratch', height_m: 0.3, result: 'green'}],
	[{kind: 'scratch', height_m: 0.7, result: 'brown'}, {kind: 'scratch', height_m: 0.1, result: 'brown'}],
	[{kind: 'bud_rub', height_m: 0.6, held: 2, broke: 6}, {kind: 'bud_rub', height_m: 0.2, held: 7, broke: 1}],
	[{kind: 'bud_rub', height_m: 0.4, broke: 8}, {kind: 'scratch', height_m: 0.4, result: 'unclear'}],
	[{kind: 'shoot', height_m: 0.3, leaf: 'true'}],
	[{kind: 'shoot', height_m: 0.05, leaf: 'rootstock'}],
	[{kind: 'crown', result: 'soft'}],
	[{kind: 'crown', result: 'firm_buds'}, {kind: 'leaf', height_m: 0.5, result: 'dropped'}],
	[{kind: 'bark_ring', height_m: 0.1, result: 'no_bridge', amount: 1}],
	[{kind: 'split_bark', height_m: 0.2, result: 'loose', amount: 0.6}, {kind: 'base', result: 'rocking'}],
	[{kind: 'leaf', height_m: 0.8, result: 'clinging'}, {kind: 'tip_dead', amount: 0.2}],
	[{kind: 'danger', result: 'hanging_limb'}],
	[{kind: 'spear', result: 'pulled'}, {kind: 'head', result: 'browned'}],
	[{kind: 'spot', result: 'water_stands', seen: 'yes'}, {kind: 'scratch', height_m: 0.5, result: 'brown'}, {kind: 'growth', amount: 0.05}],
	[{kind: 'not_looked', result: 'bud_rub'}, {kind: 'sample', held: 3, broke: 2}]
]`

// TestTheDeviceJudgesAsTheHouse: over plants of the sample and what may be found at them, the verdict that the device forms is
// the house's, figure for figure and word for word; and what the house refuses the device refuses. Every time each plant meets a
// third of what may be found, and with -everywhere all of it.
func TestTheDeviceJudgesAsTheHouse(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := openKept(t, s, 1280, 800) // what is taken along is kept there
	b.expect("422 ")               // what cannot be is asked too
	b.visit("/#/walk/1")
	b.until("the rules on the device", "!!window.mezzadroRules")
	for property := 1; property <= 3; property++ {
		var walk walkOut
		s.walkOf(property, &walk)
		b.eval(fmt.Sprintf(`(async () => {
			const call = (method, path, body) => {
				const r = new XMLHttpRequest();
				r.open(method, '/api/v1' + path, false);
				r.setRequestHeader('Content-Type', 'application/json');
				r.send(body ? JSON.stringify(body) : null);
				return { status: r.status, body: JSON.parse(r.responseText) };
			};
			const kit = call('GET', '/properties/%[1]d/along').body;
			const style = JSON.stringify(call('GET', '/frame').body.style);
			await mezzadroRules('mezzadroTake', JSON.stringify(kit), style);
			const out = { judged: 0, refused: 0, kinds: [], differ: [] };
			for (const [i, p] of kit.plants.entries()) for (const [k, found] of %[3]s.entries()) {
				if (!%[4]t && (i + k) %% 3) continue;
				const checks = found.map((c) => (c.height_m ? { ...c, height_m: Math.round(c.height_m * p.height_m * 1000) / 1000 } : c));
				const house = call('PUT', '/walks/%[2]d/plants/' + p.id + '/checks', { checks });
				const device = JSON.parse(await mezzadroRules('mezzadroJudge', JSON.stringify({ property: %[1]d, plant: p.id, today: kit.today, day: kit.today, checks }), style));
				if (house.status === 422) {
					out.refused++;
					if (!device.refused) out.differ.push(p.species + ': taken on the device, refused by the house: ' + house.body.detail);
					continue;
				}
				const { $schema, rev, found: kept, note, ...theirs } = house.body;
				out.judged++;
				out.kinds.push(theirs.verdict.kind);
				const a = JSON.stringify(theirs), o = JSON.stringify(device.answer ?? device);
				if (a !== o) {
					let i = 0;
					while (a[i] === o[i]) i++;
					out.differ.push(p.species + ' ' + JSON.stringify(checks) + ': ' + a.slice(Math.max(0, i - 60), i + 60) + ' | ' + o.slice(Math.max(0, i - 60), i + 60));
				}
			}
			out.kinds = [...new Set(out.kinds)];
			return JSON.stringify(out);
		})().then((out) => { window.judged = out; }, (e) => { window.judged = String(e); })`, property, walk.ID, situations, *everywhere))
		b.until("all are judged", "window.judged")
		said, _ := b.eval("window.judged").(string)
		b.eval("window.judged = ''")
		var out struct {
			Judged, Refused int
			Kinds, Differ   []string
		}
		if err := json.Unmarshal([]byte(said), &out); err != nil {
			t.Fatalf("%s: %v", said, err)
		}
		if out.Judged < 50 || len(out.Kinds) < 5 {
			t.Errorf("property %d: %d judged, of the kinds %q", property, out.Judged, out.Kinds)
		}
		t.Logf("property %d: %d judged, %d refused, %q", property, out.Judged, out.Refused, out.Kinds)
		for i, d := range out.Differ {
			if i < 5 {
				t.Errorf("property %d, one of %d: %s", property, len(out.Differ), d)
			}
		}
	}
}

// TestDecideWithoutSignal: on a walk without a connection verdicts are formed on the phone; one is accepted, one overruled,
// one taken back, one put off; when the house is back it has them, with the jobs that they ask for.
func TestDecideWithoutSignal(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	b := openKept(t, s, 390, 844)
	b.expect("ERR_CONNECTION_REFUSED")
	b.expect("failed request")
	b.visit("/#/walk/1")
	b.see("Next:")
	b.until("the program is on the phone", "navigator.serviceWorker.controller")
	b.until("the rules are on the phone", "!!window.mezzadroRules")
	b.until("the property is on the phone", "caches.open('reads').then((c) => c.match('/api/v1/properties/1/along')).then((r) => window.tookAlong = !!r) && window.tookAlong")
	time.Sleep(time.Second) // the walk at hand is written after a rest
	s.kill()
	b.eval("location.reload()")
	b.see("No connection")
	next := func() string {
		at, _ := b.eval("location.hash").(string)
		b.press("button", "Next plant")
		b.until("the next plant", fmt.Sprintf("location.hash !== %q", at))
		return at
	}
	find := func() {
		b.until("the buttons", quoted("button", "Bark green"))
		b.press("button", "Bark brown")
		b.press("button", "Bark green")
		b.until("the verdict", "[...document.querySelectorAll('button')].some((x) => x.textContent.trim() === 'Accept' && !x.disabled)")
	}
	find()
	b.press("button", "Accept")
	b.until("what is kept here, with its day", `/accepted: wait until [A-Z][a-z]{2} \d+ [A-Z][a-z]+\. Kept on this device, and sent when there is a connection/.test(document.body.innerText)`)
	accepted := next()
	find()
	b.press("button", "Overrule")
	b.choose("Your verdict", "replace")
	b.press("button", "Keep my verdict")
	b.see("Note is missing: say why the verdict is overruled")
	b.fill("Why", "the client never liked it")
	b.press("button", "Keep my verdict")
	b.see("your verdict: replace")
	overruled := next()
	find()
	b.press("button", "Accept")
	b.see(", accepted:")
	b.press("button", "Undo")
	b.until("it can be decided again", quoted("button", "Accept"))
	undone := next()
	find()
	b.press("button", "Not now")
	b.see("put off")
	putOff := next()
	b.eval("location.reload()")
	b.see("No connection")
	b.see("7 to send") // four looks, three decisions
	s = s.again()
	b.until("all is sent", "!/to send/.test(document.body.innerText) && !/No connection/.test(document.body.innerText)")
	want := map[string]string{accepted: "accepted", overruled: "overruled", undone: "", putOff: "not now"}
	for at, decision := range want {
		var story struct {
			Walks []struct {
				Checks   []any
				Verdicts []struct{ Decision, Kind, Note string }
			}
			Jobs []struct{ Origin string }
		}
		s.get("/api/v1/plants/"+at[strings.LastIndex(at, "/")+1:]+"/story", &story)
		if len(story.Walks) == 0 || len(story.Walks[0].Checks) != 2 {
			t.Errorf("%s: %+v", at, story.Walks)
			continue
		}
		v := story.Walks[0].Verdicts
		switch {
		case decision == "" && len(v) > 0, decision != "" && (len(v) != 1 || v[0].Decision != decision):
			t.Errorf("%s: %+v, want %q", at, v, decision)
		case decision == "overruled" && (v[0].Kind != "replace" || v[0].Note != "the client never liked it" || len(story.Jobs) == 0):
			t.Errorf("%s: %+v with %d jobs", at, v, len(story.Jobs))
		}
	}
}
