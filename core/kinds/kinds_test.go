package kinds

import (
	"go/ast"
	"go/parser"
	"go/token"
	"reflect"
	"strconv"
	"testing"

	"mezzadro/core/catalogue"
	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/pruning"
	"mezzadro/core/rounds"
	"mezzadro/core/rules"
	"mezzadro/core/season"
)

func place(t *testing.T, climate string) Place {
	t.Helper()
	c, err := catalogue.Built().Climate(climate)
	if err != nil {
		t.Fatal(err)
	}
	y := season.NewYear(c.Climate.Daily(), nil)
	return Place{Work: job.At(y, rules.House{}), Cuts: pruning.At(y)}
}

// TestEveryKindIsRegistered: a kind that core/job names and that does not stand in the register has no weather and no
// place on the list of what can be asked for.
func TestEveryKindIsRegistered(t *testing.T) {
	f, err := parser.ParseFile(token.NewFileSet(), "../job/job.go", nil, 0)
	if err != nil {
		t.Fatal(err)
	}
	named := map[job.Kind]bool{}
	ast.Inspect(f, func(n ast.Node) bool {
		v, is := n.(*ast.ValueSpec)
		if !is {
			return true
		}
		if id, typed := v.Type.(*ast.Ident); typed && id.Name == "Kind" {
			text, err := strconv.Unquote(v.Values[0].(*ast.BasicLit).Value)
			if err != nil {
				t.Fatal(err)
			}
			named[job.Kind(text)] = true
		}
		return true
	})
	for k := range named {
		if _, known := Of(k); !known {
			t.Errorf("%q is a kind of work that the register does not know", k)
		}
	}
	for _, k := range all {
		if !named[k.Name] {
			t.Errorf("the register knows %q, which is no kind of work", k.Name)
		}
	}
	if len(named) < 20 {
		t.Errorf("only %d kinds were found", len(named))
	}
}

// TestAsksTellOrdersApart: every parameter of an order is part of what it asks, but for those that its kind calls idle;
// and these move no day's cost.
func TestAsksTellOrdersApart(t *testing.T) {
	at := place(t, "lake-foothills")
	made := day.Of(2027, 3, 1)
	book := catalogue.Built()
	e, err := book.Species("rosa-bedding")
	if err != nil {
		t.Fatal(err)
	}
	bases := map[job.Kind]job.Params{
		job.Prune: {Purpose: "shape"}, job.Treat: {Cause: "aphids", Rung: "water", Step: 1}, job.Feed: {EveryDays: 20, Last: made},
	}
	for _, k := range all {
		base := bases[k.Name]
		first := AskOf(k.Name, e.ID, made, base)
		for i := range reflect.TypeFor[job.Params]().NumField() {
			p := base
			f := reflect.ValueOf(&p).Elem().Field(i)
			switch f.Kind() {
			case reflect.String:
				f.SetString(f.String() + "x")
			case reflect.Float64:
				f.SetFloat(1.5)
			case reflect.Int, reflect.Int64, reflect.Int32:
				f.SetInt(f.Int() + 3)
			case reflect.Bool:
				f.SetBool(true)
			case reflect.Slice:
				f.Set(reflect.ValueOf([]job.Span{{From: made, To: made + 9}}))
			default:
				t.Fatalf("a parameter of a kind that this test does not know: %s", f.Kind())
			}
			if AskOf(k.Name, e.ID, made, p) != first {
				continue
			}
			name := reflect.TypeFor[job.Params]().Field(i).Name
			was := at.Curve(job.Order{Kind: k.Name, For: made, Params: base}, []catalogue.Entry{e})
			is := at.Curve(job.Order{Kind: k.Name, For: made, Params: p}, []catalogue.Entry{e})
			if !reflect.DeepEqual(was.Costs(), is.Costs()) {
				t.Errorf("%s: %s is called idle, and moves the costs", k.Name, name)
			}
		}
	}
	if AskOf(job.Look, "a", made, job.Params{}) == AskOf(job.Look, "b", made, job.Params{}) || AskOf(job.Look, "a", made, job.Params{}) == AskOf(job.Look, "a", made+1, job.Params{}) {
		t.Error("species and day are not told apart")
	}
}

// TestWeather: what a crew needs the sky to be like for a piece of work.
func TestWeather(t *testing.T) {
	for _, c := range []struct {
		name   string
		kind   job.Kind
		use    string
		skills []string
		want   rounds.Work
	}{
		{"oil on dormant wood", job.Treat, "oil", nil, rounds.Spray},
		{"a grease band put on", job.Treat, "grease-band", nil, rounds.Any},
		{"a rose pruned from the ground", job.Prune, "", nil, rounds.Cut},
		{"a limb by the climber", job.Prune, "", []string{job.Climbing}, rounds.Aloft},
		{"a crown that needs the arborist", job.Shorten, "", []string{job.Arborist}, rounds.Aloft},
		{"the climber looks, but cuts nothing", job.Look, "", []string{job.Climbing}, rounds.Any},
		{"a dead lavender replaced", job.Replace, "", nil, rounds.Earth},
		{"dahlias lifted", job.Lift, "", nil, rounds.Earth},
	} {
		if got := Weather(c.kind, c.use, c.skills); got != c.want {
			t.Errorf("%s: wants the weather of %q, not %q", c.name, got, c.want)
		}
	}
}

func BenchmarkAskOf(b *testing.B) {
	for b.Loop() {
		AskOf(job.Prune, "rosa-bedding", day.Of(2027, 3, 1), job.Params{Purpose: "shape", CutM: 1})
	}
}
