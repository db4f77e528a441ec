package ledger_test

import (
	"archive/zip"
	"bytes"
	"context"
	"errors"
	"io"
	"slices"
	"strings"
	"testing"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/house/clients"
	"mezzadro/house/crews"
	"mezzadro/house/finds"
	"mezzadro/house/housetest"
	"mezzadro/house/ledger"
	"mezzadro/house/rounds"
	"mezzadro/house/treat"
	"mezzadro/house/work"
	"mezzadro/store"
)

// kit is a house with rates, one property, three jobs of it, and its client.
type kit struct {
	*housetest.Kit
	ctx      context.Context
	property int64
	jobs     []int64
	client   clients.Client
}

func open(t *testing.T) *kit {
	t.Helper()
	k := &kit{Kit: housetest.Open(t), ctx: context.Background()}
	k.property = k.Property("Weir House", "lake-foothills").ID
	bay := k.Plant(k.property, "laurus-nobilis", 3)
	for _, in := range []work.HandOrder{
		{PropertyID: k.property, Plants: []int64{bay.ID}, Kind: job.Prune, Title: "Cut the bay back from the path", Minutes: 90},
		{PropertyID: k.property, Plants: []int64{bay.ID}, Kind: job.CutBack, CutM: 1.5, Title: "Cut the bay back hard", Minutes: 60, CrewSize: 2},
		{PropertyID: k.property, Plants: []int64{bay.ID}, Kind: job.Mulch, Title: "Mulch the bay", Minutes: 30},
	} {
		o, err := k.Work.AddOrder(k.ctx, store.Key{}, in)
		k.jobs = append(k.jobs, housetest.Must(t, o, err).ID)
	}
	r, err := k.Ledger.SetRates(k.ctx, store.Key{}, ledger.Rates{Rates: estimate.Rates{Currency: "eur", Hour: 4000, Visit: 2500, WasteM3: 2800,
		Tax: 2200, ValidDays: 30, Plans: "answered", Stuff: []estimate.Price{{Name: "mulch", Unit: "m3", Price: 4500}}}})
	if housetest.Must(t, r, err).Currency != "EUR" || r.Digits != 2 {
		t.Fatalf("rates: %+v", r)
	}
	c, err := k.Clients.KeepClient(k.ctx, store.Key{}, 0, clients.ClientIn{Name: "Noemi Tarsello", Phone: "+39 0555 010 010", Email: "noemi@example.com",
		Of: []clients.AtHome{{PropertyID: k.property, Role: "owner", Gets: []string{"estimates"}}}})
	k.client = housetest.Must(t, c, err)
	return k
}

// sent makes an estimate of all jobs and sends it.
func (k *kit) sent(t *testing.T) ledger.Estimate {
	t.Helper()
	e, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: k.property}, quantity.Metric)
	e = housetest.Must(t, e, err)
	e, err = k.Ledger.Send(k.ctx, store.Key{}, e.ID, e.Version)
	return housetest.Must(t, e, err)
}

func (k *kit) agreed(t *testing.T, order int64) (agreed string, state job.State) {
	t.Helper()
	o, err := k.Work.Order(k.ctx, order)
	o = housetest.Must(t, o, err)
	return o.Agreed, o.State
}

func (k *kit) answer(t *testing.T, e ledger.Estimate, line int, yes bool) ledger.Estimate {
	t.Helper()
	e, err := k.Ledger.Answer(k.ctx, store.Key{}, e.ID, ledger.AnswerIn{Line: line, Edition: e.Edition, Yes: yes, Name: "Noemi", Remark: "not now"}, "link")
	return housetest.Must(t, e, err)
}

// TestAnEstimateIsAnswered: an estimate holds the property's jobs, sent, they wait for an answer;
// a yes agrees to one, a no ends another with its reason, and taking the no back has it stand again.
func TestAnEstimateIsAnswered(t *testing.T) {
	k := open(t)
	e := k.sent(t)
	if len(e.Lines) != 3 || e.Client != "Noemi Tarsello" || e.Number != 1 || e.Answers != "open" {
		t.Fatalf("%+v", e)
	}
	for _, id := range k.jobs {
		if agreed, _ := k.agreed(t, id); agreed != "asked" {
			t.Errorf("job %d is %q", id, agreed)
		}
	}
	all := e.Total.Gross.Amount
	e = k.answer(t, e, 1, true)
	e = k.answer(t, e, 2, false)
	if a, _ := k.agreed(t, e.Lines[0].Order); a != "agreed" {
		t.Errorf("agreed to it is %q", a)
	}
	a, state := k.agreed(t, e.Lines[1].Order)
	o, _ := k.Work.Order(k.ctx, e.Lines[1].Order)
	if a != "declined" || state != job.Skipped || o.Note != "Declined by Noemi: not now" {
		t.Errorf("declined it is %q, %s, %q", a, state, o.Note)
	}
	if e.Total.Gross.Amount >= all || e.Agreed.Gross.Amount >= e.Total.Gross.Amount || e.Answers != "open" {
		t.Errorf("%d of %d after a no, %d agreed, %s", e.Total.Gross.Amount, all, e.Agreed.Gross.Amount, e.Answers)
	}
	e = k.answer(t, e, 2, true)
	if a, state := k.agreed(t, e.Lines[1].Order); a != "agreed" || state != job.Waiting {
		t.Errorf("taken back it is %q, %s", a, state)
	}
}

// TestALineThatChangedIsAskedAnew: what is agreed stays agreed while words and price do; the new edition has to be sent,
// and cannot be answered before.
func TestALineThatChangedIsAskedAnew(t *testing.T) {
	k := open(t)
	e := k.sent(t)
	for line := 1; line <= 3; line++ {
		e = k.answer(t, e, line, true)
	}
	lines := slices.Clone(e.Lines)
	lines[1].Parts = slices.Clone(lines[1].Parts)
	p := &lines[1].Parts[0]
	p.From, p.Amount, p.To, p.ByHand = p.From+500, p.Amount+500, p.To+500, true
	changed, err := k.Ledger.ChangeEstimate(k.ctx, store.Key{}, e.ID, ledger.Change{Until: e.Until, Lines: lines, Visits: 1, Version: e.Version}, quantity.Metric)
	changed = housetest.Must(t, changed, err)
	if changed.State != "draft" || changed.Edition != 2 || changed.Lines[0].Answer == nil || changed.Lines[1].Answer != nil {
		t.Fatalf("%+v", changed)
	}
	if a, _ := k.agreed(t, lines[1].Order); a != "asked" {
		t.Errorf("the job of a line that costs more now is %q", a)
	}
	if a, _ := k.agreed(t, lines[0].Order); a != "agreed" {
		t.Errorf("the job of a line as before is %q", a)
	}
	in := ledger.AnswerIn{Line: 2, Edition: 1, Yes: true, Name: "Noemi"}
	if _, err := k.Ledger.Answer(k.ctx, store.Key{}, e.ID, in, "link"); err == nil {
		t.Error("a draft was answered")
	}
	changed, err = k.Ledger.Send(k.ctx, store.Key{}, e.ID, changed.Version)
	changed = housetest.Must(t, changed, err)
	if _, err := k.Ledger.Answer(k.ctx, store.Key{}, e.ID, in, "link"); err == nil || !strings.Contains(err.Error(), "changed meanwhile") {
		t.Errorf("the edition before was answered: %v", err)
	}
	stale := store.Stale{}
	if _, err := k.Ledger.ChangeEstimate(k.ctx, store.Key{}, e.ID, ledger.Change{Until: e.Until, Lines: lines, Version: 1}, quantity.Metric); !errors.As(err, &stale) {
		t.Errorf("changed over another's change: %v", err)
	}
}

// TestRefusals: an estimate without a price is not sent, one that is over or withdrawn not answered, and a job of another
// property not priced.
func TestRefusals(t *testing.T) {
	k := open(t)
	e := k.sent(t)
	other := k.Property("Mill", "lake-foothills")
	if _, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: other.ID, Orders: k.jobs[:1]}, quantity.Metric); err == nil {
		t.Error("a job of another property was priced")
	}
	if _, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: k.property, ClientID: 99}, quantity.Metric); err == nil {
		t.Error("it goes to somebody who is no client there")
	}
	k.On += 31
	in := ledger.AnswerIn{Line: 1, Edition: 1, Yes: true, Name: "Noemi"}
	if _, err := k.Ledger.Answer(k.ctx, store.Key{}, e.ID, in, "link"); err == nil || !strings.Contains(err.Error(), "over") {
		t.Errorf("answered after its last day: %v", err)
	}
	if got, _ := k.Ledger.Estimate(k.ctx, e.ID); !got.Over {
		t.Error("it is not said to be over")
	}
	e, err := k.Ledger.Withdraw(k.ctx, store.Key{}, e.ID, e.Version)
	e = housetest.Must(t, e, err)
	if a, _ := k.agreed(t, k.jobs[0]); a != "" {
		t.Errorf("withdrawn, its job is %q", a)
	}
	rates, err := k.Ledger.Rates(k.ctx)
	rates = housetest.Must(t, rates, err)
	rates.Stuff, rates.Hour = nil, 0
	if _, err := k.Ledger.SetRates(k.ctx, store.Key{}, rates); err != nil {
		t.Fatal(err)
	}
	bare, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: k.property}, quantity.Metric)
	bare = housetest.Must(t, bare, err)
	if _, err := k.Ledger.Send(k.ctx, store.Key{}, bare.ID, bare.Version); err == nil || !strings.Contains(err.Error(), "no price yet") {
		t.Errorf("sent without prices: %v", err)
	}
}

// TestWorkDoneIsCharged: what was done is told with its hours and what it comes to, by month, property, person and kind; it
// is charged once, under numbers without a gap; what has no price is not.
func TestWorkDoneIsCharged(t *testing.T) {
	k := open(t)
	e := k.sent(t)
	for line := range e.Lines {
		e = k.answer(t, e, line+1, true)
	}
	tick := func(order int64, took int) {
		t.Helper()
		o, err := k.Work.Order(k.ctx, order)
		o = housetest.Must(t, o, err)
		if _, err := k.Work.TickOff(k.ctx, store.Key{}, order, work.TickOffIn{State: job.Done, Took: took, Version: o.Version}); err != nil {
			t.Fatal(err)
		}
	}
	tick(k.jobs[0], 60)  // planned 90: an hour of one
	tick(k.jobs[1], 400) // planned 60 of two, agreed up to 35 % more of it
	got, err := k.Ledger.Done(k.ctx, 0, k.On-30, k.On)
	got = housetest.Must(t, got, err)
	if len(got.Items) != 2 || got.Items[0].Planned != 90 || got.Items[0].Took != 60 || got.Items[1].Took != 800 || got.Total.Jobs != 2 {
		t.Fatalf("%+v", got)
	}
	line := func(order int64) estimate.Line {
		return e.Lines[slices.IndexFunc(e.Lines, func(l estimate.Line) bool { return l.Order == order })]
	}
	if a := got.Items[1].Amount; a != line(k.jobs[1]).To {
		t.Errorf("it took much longer and costs %d, agreed was up to %d", a, line(k.jobs[1]).To)
	}
	if a := line(k.jobs[0]); got.Items[0].Amount != a.Amount-2000 {
		t.Errorf("half an hour less of 40.00 an hour costs %d, planned %d", got.Items[0].Amount, a.Amount)
	}
	if got.Total.Amount != got.Items[0].Amount+got.Items[1].Amount || got.Total.Open != got.Total.Amount {
		t.Errorf("in all %+v", got.Total)
	}
	for i, id := range k.jobs[:2] {
		c, err := k.Ledger.AddCharge(k.ctx, store.Key{}, ledger.ChargeIn{PropertyID: k.property, Orders: []int64{id}, Visits: 1}, quantity.Metric)
		c = housetest.Must(t, c, err)
		if c.Number != i+1 || c.Client != "Noemi Tarsello" || c.Total.Net.Amount != got.Items[i].Amount+2500 {
			t.Errorf("charge %d: %+v", i+1, c)
		}
	}
	for _, orders := range [][]int64{k.jobs[:1], k.jobs[2:3]} { // charged already; not done
		if _, err := k.Ledger.AddCharge(k.ctx, store.Key{}, ledger.ChargeIn{PropertyID: k.property, Orders: orders}, quantity.Metric); err == nil {
			t.Errorf("%v was charged", orders)
		}
	}
	if got, _ := k.Ledger.Done(k.ctx, k.property, k.On-30, k.On); got.Total.Open != 0 || got.Items[1].Charged != 2 {
		t.Errorf("after charging all: %+v", got.Total)
	}
	if _, err := k.Ledger.Done(k.ctx, 0, k.On, k.On-1); err == nil {
		t.Error("a stretch that ends before it begins is told")
	}
	if list, _ := k.Ledger.Charges(k.ctx, 0); len(list) != 2 || list[0].Day != day.Of(2027, 3, 18) {
		t.Errorf("charges: %+v", list)
	}
}

// TestReports: a report of the year is written, gone over and sent; sent it cannot be changed or taken out; without hard
// weather there is none of an event; the link shows what was sent and nothing else.
func TestReports(t *testing.T) {
	k := open(t)
	r, err := k.Ledger.AddReport(k.ctx, store.Key{}, ledger.ReportIn{PropertyID: k.property, Kind: "season"})
	r = housetest.Must(t, r, err)
	if r.State != "draft" || !strings.Contains(r.Title, "Weir House") || len(r.Summary) == 0 {
		t.Fatalf("%+v", r)
	}
	if _, err := k.Ledger.AddReport(k.ctx, store.Key{}, ledger.ReportIn{PropertyID: k.property, Kind: "event"}); err == nil {
		t.Error("a freeze that never was is told")
	}
	r.Report.Summary = append(r.Report.Summary, "The bay wants a hard cut.")
	r, err = k.Ledger.ChangeReport(k.ctx, store.Key{}, r.ID, ledger.ReportChange{Report: r.Report, Version: r.Version}, quantity.Metric)
	r = housetest.Must(t, r, err)
	shown := func() int {
		t.Helper()
		list, err := k.Ledger.SentReports(k.ctx, k.property)
		return len(housetest.Must(t, list, err))
	}
	if shown() != 0 {
		t.Error("a draft is shown to the client")
	}
	r, err = k.Ledger.SendReport(k.ctx, store.Key{}, r.ID, r.Version, true)
	r = housetest.Must(t, r, err)
	if shown() != 1 {
		t.Error("what was sent is not shown")
	}
	if _, err := k.Ledger.ChangeReport(k.ctx, store.Key{}, r.ID, ledger.ReportChange{Report: r.Report, Version: r.Version}, quantity.Metric); err == nil {
		t.Error("what was sent was changed")
	}
	if err := k.Ledger.RemoveReport(k.ctx, store.Key{}, r.ID); err == nil {
		t.Error("what was sent was taken out")
	}
	r, err = k.Ledger.SendReport(k.ctx, store.Key{}, r.ID, r.Version, false)
	r = housetest.Must(t, r, err)
	if err := k.Ledger.RemoveReport(k.ctx, store.Key{}, r.ID); err != nil || shown() != 0 {
		t.Errorf("taken back and out: %v", err)
	}
}

// TestANoEndsTheCourse: a step of a treatment that is declined ends the steps after it; taken back, they stand again; what of
// it was agreed before stays.
func TestANoEndsTheCourse(t *testing.T) {
	k := open(t)
	spindle := k.Plant(k.property, "euonymus-japonicus", 2)
	f, err := k.Finds.AddFind(k.ctx, store.Key{}, finds.FindIn{PlantID: spindle.ID, Cause: "armoured-scale", Certainty: 1, Share: 0.4})
	f = housetest.Must(t, f, err)
	kept, err := k.Treat.KeepTreatment(k.ctx, store.Key{}, f.ID, treat.KeepTreatmentIn{})
	if err != nil {
		t.Fatal(err)
	}
	plan := kept.Jobs
	if len(plan) < 2 {
		t.Fatalf("a course of %d steps", len(plan))
	}
	e, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: k.property, Orders: []int64{plan[0].ID}}, quantity.Metric)
	e = housetest.Must(t, e, err)
	for i := range e.Lines[0].Parts {
		p := &e.Lines[0].Parts[i]
		p.Unpriced, p.ByHand = false, true
	}
	e, err = k.Ledger.ChangeEstimate(k.ctx, store.Key{}, e.ID, ledger.Change{Until: e.Until, Lines: e.Lines, Visits: 1, Version: e.Version}, quantity.Metric)
	e = housetest.Must(t, e, err)
	e, err = k.Ledger.Send(k.ctx, store.Key{}, e.ID, e.Version)
	e = k.answer(t, housetest.Must(t, e, err), 1, false)
	for _, o := range plan {
		if _, state := k.agreed(t, o.ID); state != job.Skipped {
			t.Errorf("%s is %s after the no", o.Title, state)
		}
	}
	k.answer(t, e, 1, true)
	for _, o := range plan {
		if _, state := k.agreed(t, o.ID); state != job.Waiting {
			t.Errorf("%s is %s after the yes", o.Title, state)
		}
	}
}

// TestWhatIsPlannedIsAgreed: where the firm says so, a job that waits for its client's answer gets no day and is told among
// what is left; agreed it gets one.
func TestWhatIsPlannedIsAgreed(t *testing.T) {
	k := open(t) // its firm plans none that waits for an answer
	person, err := k.Team.KeepPerson(k.ctx, store.Key{}, 0, crews.PersonIn{Name: "Tea"})
	person = housetest.Must(t, person, err)
	crew := crews.CrewIn{Name: "Crew 1", People: []int64{person.ID}}
	for d := range crew.Hours {
		crew.Hours[d].From, crew.Hours[d].To = 480, 1020
	}
	if _, err := k.Team.KeepCrew(k.ctx, store.Key{}, 0, crew); err != nil {
		t.Fatal(err)
	}
	planned := func() (day, left map[int64]bool) {
		t.Helper()
		p, err := k.Rounds.Propose(k.ctx, rounds.ProposalIn{Days: 14, Seconds: 0.2})
		p = housetest.Must(t, p, err)
		for p.State == "working" {
			time.Sleep(10 * time.Millisecond)
			p, err = k.Rounds.ReadProposal(context.Background(), p.ID)
			p = housetest.Must(t, p, err)
		}
		day, left = map[int64]bool{}, map[int64]bool{}
		for _, v := range p.Visits {
			for _, o := range v.Jobs {
				day[o.ID] = true
			}
		}
		for _, l := range p.Left {
			left[l.Job.ID] = strings.Contains(l.Why, "client")
		}
		return day, left
	}
	mulch := k.jobs[2]
	if day, _ := planned(); !day[mulch] {
		t.Fatal("nobody was asked, and it has no day")
	}
	e := k.sent(t)
	if day, left := planned(); day[mulch] || !left[mulch] {
		t.Errorf("it waits for an answer: on a day %v, told %v", day[mulch], left[mulch])
	}
	for _, l := range e.Lines {
		if l.Order == mulch {
			k.answer(t, e, l.ID, true)
		}
	}
	if day, _ := planned(); !day[mulch] {
		t.Error("agreed, it has no day")
	}
}

// TestErasedClient: of a client who is erased no name, number or address is left, in no answer either.
func TestErasedClient(t *testing.T) {
	k := open(t)
	e := k.answer(t, k.sent(t), 1, true)
	if err := k.Clients.RemoveClient(k.ctx, store.Key{}, k.client.ID, true); err != nil {
		t.Fatal(err)
	}
	if _, err := k.Firm.Erase(k.ctx, "client", k.client.ID); err != nil {
		t.Fatal(err)
	}
	e, err := k.Ledger.Estimate(k.ctx, e.ID)
	e = housetest.Must(t, e, err)
	if e.Lines[0].Answer.Name != "(erased)" || e.Lines[0].Answer.Remark != "" || e.Client == "Noemi Tarsello" {
		t.Errorf("left of it: %+v, %q", e.Lines[0].Answer, e.Client)
	}
	var all bytes.Buffer
	if err := k.Firm.GiveEverything(k.ctx, &all, quantity.Metric); err != nil {
		t.Fatal(err)
	}
	z, err := zip.NewReader(bytes.NewReader(all.Bytes()), int64(all.Len()))
	z = housetest.Must(t, z, err)
	for _, f := range z.File {
		r, err := f.Open()
		b, err2 := io.ReadAll(housetest.Must(t, r, err))
		if text := string(housetest.Must(t, b, err2)); strings.Contains(text, "Noemi") || strings.Contains(text, "0555") {
			t.Errorf("%s tells of her still", f.Name)
		}
	}
}

// TestAgreedOnceForAllTimes: who agreed to a job that comes again agreed to its next time.
func TestAgreedOnceForAllTimes(t *testing.T) {
	k := open(t)
	o, err := k.Work.AddOrder(k.ctx, store.Key{}, work.HandOrder{PropertyID: k.property, Title: "Mow", Minutes: 40, EveryDays: 14,
		Spans: []work.SpanIn{{From: k.On - 1, To: k.On + 120}}})
	o = housetest.Must(t, o, err)
	e, err := k.Ledger.AddEstimate(k.ctx, store.Key{}, ledger.EstimateIn{PropertyID: k.property, Orders: []int64{o.ID}}, quantity.Metric)
	e = housetest.Must(t, e, err)
	if !strings.Contains(e.Lines[0].Note, "every 14 days") {
		t.Errorf("it is not said that it comes again: %q", e.Lines[0].Note)
	}
	e, err = k.Ledger.Send(k.ctx, store.Key{}, e.ID, e.Version)
	k.answer(t, housetest.Must(t, e, err), 1, true)
	now, err := k.Work.Order(k.ctx, o.ID)
	now = housetest.Must(t, now, err)
	if _, err := k.Work.TickOff(k.ctx, store.Key{}, o.ID, work.TickOffIn{State: job.Done, Took: 40, Version: now.Version}); err != nil {
		t.Fatal(err)
	}
	list, err := k.Work.Orders(k.ctx, store.ListStanding, k.property, "", 50)
	list = housetest.Must(t, list, err)
	for _, next := range list.Items {
		if next.Title == "Mow" {
			if next.Agreed != "agreed" {
				t.Errorf("the next time is %q", next.Agreed)
			}
			return
		}
	}
	t.Error("it does not come again")
}
