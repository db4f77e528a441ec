// Package e2e drives the built program through a browser as a user would: by what is seen and pressed.
package e2e

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	cdpruntime "github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
)

// program is the built binary, made once for all journeys.
var program string

// together is how many journeys run side by side where nobody said: the browser waits more than it works.
const together = "4"

func TestMain(m *testing.M) {
	flag.Parse()
	if given := flag.Lookup("test.parallel"); given.Value.String() == given.DefValue {
		if err := flag.Set("test.parallel", together); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
	}
	dir, err := os.MkdirTemp("", "mezzadro-e2e")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
	program = filepath.Join(dir, "mezzadro")
	if out, err := exec.Command("go", "build", "-o", program, "../cmd/mezzadro").CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "build: %v\n%s", err, out)
		os.Exit(1)
	}
	code := m.Run()
	if warm.cmd != nil {
		_ = warm.cmd.Process.Kill()
		_ = warm.cmd.Wait()
	}
	if chromium.close != nil {
		chromium.close()
	}
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

// server is the program running over a data folder.
type server struct {
	t    testing.TB
	url  string
	data string
	cmd  *exec.Cmd

	reads bool // others read it too
}

// start runs a command of the program ("demo" or "serve") and waits until it answers.
func start(t testing.TB, command, data string, args ...string) *server {
	t.Helper()
	return startAt(t, freeAddress(t), command, data, args...)
}

func startAt(t testing.TB, addr, command, data string, args ...string) *server {
	t.Helper()
	s := &server{t: t, url: "http://" + addr, data: data}
	if entries, err := os.ReadDir(data); command == "demo" && len(args) == 0 && (err != nil || len(entries) == 0) && sampled(t) {
		if err := os.CopyFS(data, os.DirFS(sample.folder)); err != nil {
			t.Fatal(err)
		}
	}
	s.cmd = exec.Command(program, append([]string{command, "--addr", addr, "--data", data}, args...)...)
	log, err := os.Create(filepath.Join(t.TempDir(), "log"))
	if err != nil {
		t.Fatal(err)
	}
	s.cmd.Stderr = log
	if err := s.cmd.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		s.kill()
		if t.Failed() {
			t.Log(errorsIn(log.Name()))
		}
	})
	// A sample of another day is worked out anew: a quarter of a minute of processor, on a busy machine more than one.
	for deadline := time.Now().Add(3 * patience); time.Now().Before(deadline); {
		if res, err := http.Get(s.url + "/api/v1/frame"); err == nil {
			res.Body.Close()
			return s
		}
		time.Sleep(10 * time.Millisecond)
	}
	b, _ := os.ReadFile(log.Name())
	t.Fatalf("%s did not answer: %s", command, b)
	return nil
}

// errorsIn are the lines of a program's log that tell of errors and of what was called off: what a failed journey wants to know first.
func errorsIn(log string) string {
	text, err := os.ReadFile(log)
	if err != nil {
		return err.Error()
	}
	lines := slices.DeleteFunc(strings.Split(string(text), "\n"), func(l string) bool {
		return !strings.Contains(l, `"level":"ERROR"`) && !strings.Contains(l, "called off")
	})
	return strings.Join(lines, "\n")
}

// sample is the sample's record, loaded once: each journey starts on a copy of it.
var sample struct {
	once   sync.Once
	folder string
}

// sampled reports that the copy is there to be taken.
func sampled(t testing.TB) bool {
	t.Helper()
	sample.once.Do(func() {
		folder := filepath.Join(filepath.Dir(program), "sample")
		addr := freeAddress(t)
		cmd := exec.Command(program, "demo", "--addr", addr, "--data", folder)
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		defer func() { _ = cmd.Wait() }()
		for deadline := time.Now().Add(2 * patience); time.Now().Before(deadline); time.Sleep(20 * time.Millisecond) {
			if res, err := http.Get("http://" + addr + "/api/v1/frame"); err == nil {
				res.Body.Close()
				sample.folder = folder
				break
			}
		}
		_ = cmd.Process.Signal(os.Interrupt)
	})
	if sample.folder == "" {
		t.Fatal("the sample was not loaded")
	}
	return true
}

// warm is one sample that all journeys share which only read: begun with the first of them.
var warm struct {
	once sync.Once
	url  string
	cmd  *exec.Cmd
}

// reading is the sample for a journey that only reads: it is there already. A write to it is a fault of the journey.
func reading(t testing.TB) *server {
	t.Helper()
	warm.once.Do(func() {
		sampled(t)
		addr := freeAddress(t)
		warm.cmd = exec.Command(program, "demo", "--addr", addr, "--data", filepath.Join(filepath.Dir(program), "warm"))
		if err := os.CopyFS(filepath.Join(filepath.Dir(program), "warm"), os.DirFS(sample.folder)); err != nil {
			t.Fatal(err)
		}
		if err := warm.cmd.Start(); err != nil {
			t.Fatal(err)
		}
		for deadline := time.Now().Add(2 * patience); time.Now().Before(deadline); time.Sleep(20 * time.Millisecond) {
			if res, err := http.Get("http://" + addr + "/api/v1/frame"); err == nil {
				res.Body.Close()
				warm.url = "http://" + addr
				return
			}
		}
	})
	if warm.url == "" {
		t.Fatal("the sample that is read did not answer")
	}
	return &server{t: t, url: warm.url, cmd: warm.cmd, reads: true}
}

// freeAddress is one on this machine that nobody serves on.
func freeAddress(t testing.TB) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer l.Close()
	return l.Addr().String()
}

// kill ends the program as a power cut would.
func (s *server) kill() {
	if s.cmd.ProcessState == nil {
		_ = s.cmd.Process.Kill()
		_ = s.cmd.Wait()
	}
}

// fetch reads an answer as it is.
func (s *server) fetch(path string) string {
	s.t.Helper()
	res, err := http.Get(s.url + path)
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	if err != nil || res.StatusCode != http.StatusOK {
		s.t.Fatalf("GET %s: %s, %v", path, res.Status, err)
	}
	return string(b)
}

// get reads an operation's answer.
func (s *server) get(path string, into any) {
	s.t.Helper()
	if err := json.Unmarshal([]byte(s.fetch(path)), into); err != nil {
		s.t.Fatalf("GET %s: %v", path, err)
	}
}

// orderOf is the id of the standing job that begins with some words.
func (s *server) orderOf(words string) int64 {
	s.t.Helper()
	var list struct {
		Items []struct {
			ID    int64  `json:"id"`
			Title string `json:"title"`
		} `json:"items"`
	}
	s.get("/api/v1/orders?limit=500", &list)
	for _, o := range list.Items {
		if strings.HasPrefix(o.Title, words) {
			return o.ID
		}
	}
	s.t.Fatalf("no job begins with %q", words)
	return 0
}

// postFor sends what must succeed and reads the answer.
func (s *server) postFor(path, body string, into any) {
	s.t.Helper()
	res, err := http.Post(s.url+path, "application/json", strings.NewReader(body))
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusOK {
		s.t.Fatalf("POST %s: %s", path, res.Status)
	}
	if err := json.NewDecoder(res.Body).Decode(into); err != nil {
		s.t.Fatalf("POST %s: %v", path, err)
	}
}

// put does the same with PUT.
func (s *server) put(path, body string) {
	s.t.Helper()
	req, err := http.NewRequest(http.MethodPut, s.url+path, strings.NewReader(body))
	if err != nil {
		s.t.Fatal(err)
	}
	req.Header.Set("Content-Type", "application/json")
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		s.t.Fatal(err)
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusOK {
		s.t.Fatalf("PUT %s: %s", path, res.Status)
	}
}

// post sends a write that must succeed.
func (s *server) post(path, body string) {
	s.t.Helper()
	s.postFor(path, body, new(any))
}

// browser is one tab. It notes every console error and every failed request: a journey fails on any it did not expect.
type browser struct {
	t   testing.TB
	ctx context.Context
	url string

	mu       sync.Mutex
	faults   []string
	expected []string
	scripts  map[network.RequestID]float64 // bytes on the wire of each script
}

// chromium is the one browser of all journeys: each has a context of its own in it, as if it were a browser of its own.
var chromium struct {
	once  sync.Once
	ctx   context.Context
	close func()
	fault error
}

// shell is the browser that draws without a window and takes a third less of the machine for a journey, where it is there; else it is
// the one that has windows. CHROMIUM names another.
func shell() string {
	if path := os.Getenv("CHROMIUM"); path != "" {
		return path
	}
	path, _ := exec.LookPath("chromium-headless-shell") // nothing: the allocator looks for the other
	return path
}

// brief has the browser translate scripts once and not again for speed: no page of a journey lives long enough to gain by it.
const brief = "--liftoff-only,--no-opt,--no-maglev"

// started is the browser, begun with the first journey that wants one.
func started() (context.Context, error) {
	chromium.once.Do(func() {
		opts := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.NoSandbox, chromedp.DisableGPU,
			chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true), chromedp.Flag("hide-scrollbars", true),
			chromedp.Flag("lang", "en-GB"), chromedp.Flag("accept-lang", "en-GB"), chromedp.Flag("js-flags", brief),
			chromedp.Flag("use-fake-device-for-media-stream", true), chromedp.Flag("use-fake-ui-for-media-stream", true))
		if path := shell(); path != "" {
			opts = append(opts, chromedp.ExecPath(path))
		}
		actx, cancel := chromedp.NewExecAllocator(context.Background(), opts...)
		ctx, cancel2 := chromedp.NewContext(actx)
		chromium.ctx, chromium.close = ctx, func() { cancel2(); cancel() }
		chromium.fault = chromedp.Do(ctx, chromedp.EmulateViewport(800, 600))
	})
	return chromium.ctx, chromium.fault
}

// What pages of a journey begin with: what can be taken back stays until it is pressed, and the program is not kept on
// the device, which is much work for each new one; journeys that go without signal keep it.
const (
	held   = "window.holdNotices = true;"
	unkept = "if (navigator.serviceWorker) navigator.serviceWorker.register = () => new Promise(() => {});"
)

// open is a browser of somebody who has signal all the time.
func open(t testing.TB, s *server, width, height int64) *browser {
	t.Helper()
	return opened(t, s, width, height, held+unkept)
}

// openKept is one that keeps the program on the device, to go on without signal.
func openKept(t testing.TB, s *server, width, height int64) *browser {
	t.Helper()
	return opened(t, s, width, height, held)
}

func opened(t testing.TB, s *server, width, height int64, first string) *browser {
	t.Helper()
	parent, err := started()
	if err != nil {
		t.Fatalf("browser: %v", err)
	}
	ctx, cancel := chromedp.NewContext(parent, chromedp.WithNewBrowserContext())
	t.Cleanup(cancel)
	b := &browser{t: t, ctx: ctx, url: s.url, scripts: map[network.RequestID]float64{}}
	if err := chromedp.Do(ctx, chromedp.EmulateViewport(width, height)); err != nil {
		t.Fatalf("browser: %v", err)
	}
	if _, err := chromedp.Call(ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: first}); err != nil {
		t.Fatalf("browser: %v", err)
	}
	kind := map[network.RequestID]string{}
	if err := chromedp.Listen(ctx, func(ev any) {
		b.mu.Lock()
		defer b.mu.Unlock()
		switch e := ev.(type) {
		case *cdpruntime.EventExceptionThrown:
			text := e.ExceptionDetails.Text
			if e.ExceptionDetails.Exception != nil {
				text += " " + e.ExceptionDetails.Exception.Description
			}
			b.faults = append(b.faults, "exception: "+text)
		case *cdpruntime.EventConsoleAPICalled:
			if e.Type == "error" || e.Type == "warning" {
				text := ""
				for _, a := range e.Args {
					text += string(a.Value) + " "
				}
				b.faults = append(b.faults, fmt.Sprintf("console %s: %s", e.Type, text))
			}
		case *network.EventRequestWillBeSent:
			if s.reads && e.Request.Method != "GET" && !strings.Contains(e.Request.URL, "/reckon/") {
				b.faults = append(b.faults, "a journey that only reads writes: "+e.Request.Method+" "+e.Request.URL)
			}
		case *network.EventResponseReceived:
			kind[e.RequestID] = e.Response.MimeType
			if e.Response.Status >= 400 {
				b.faults = append(b.faults, fmt.Sprintf("%d %s", e.Response.Status, e.Response.URL))
			}
		case *network.EventLoadingFinished:
			if strings.Contains(kind[e.RequestID], "javascript") {
				b.scripts[e.RequestID] = e.EncodedDataLength
			}
		case *network.EventLoadingFailed:
			if e.ErrorText != "net::ERR_ABORTED" {
				b.faults = append(b.faults, "failed request: "+e.ErrorText)
			}
		}
	}); err != nil {
		t.Fatal(err)
	}
	if _, err := chromedp.CallBrowser(ctx, network.Enable, network.EnableParams{}); err != nil {
		if _, err := chromedp.Call(ctx, network.Enable, network.EnableParams{}); err != nil {
			t.Fatal(err)
		}
	}
	t.Cleanup(func() {
		b.mu.Lock()
		defer b.mu.Unlock()
		for _, f := range b.faults {
			known := false
			for _, e := range b.expected {
				known = known || strings.Contains(f, e)
			}
			if !known {
				t.Errorf("in the browser: %s", f)
			}
		}
	})
	return b
}

// expect names a fault that the journey provokes on purpose.
func (b *browser) expect(part string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.expected = append(b.expected, part)
}

// finder finds what a user would point at: role is button, link, textbox, combobox, image or article; name a part of
// its accessible name. It prefers the exact name and what lies on top.
const finder = `((role, name) => {
  const sel = {button: 'button, [role=button], summary', link: 'a[href]', textbox: 'input:not([type=checkbox]):not([type=radio]):not([type=file]), textarea',
    combobox: 'select', image: 'svg[role=img]', article: 'article', file: 'input[type=file]', checkbox: 'input[type=checkbox]', radio: 'input[type=radio]', row: 'tr', day: '[aria-label=Days] button'}[role];
  const nameOf = (e) => {
    const label = e.getAttribute('aria-label') || (e.labels && e.labels[0] && e.labels[0].innerText) || e.innerText || e.placeholder || '';
    return label.replace(/\s+/g, ' ').replace(/ (?=[:,])/g, '').trim();
  };
  const dialog = [...document.querySelectorAll('dialog[open]')].at(-1);
  const all = [...(dialog || document).querySelectorAll(sel)].filter((e) => role === 'file' || (e.getClientRects().length && !e.disabled));
  return all.find((e) => nameOf(e) === name) || all.find((e) => nameOf(e).startsWith(name)) || all.find((e) => nameOf(e).includes(name)) || null;
})`

func quoted(role, name string) string {
	r, _ := json.Marshal(role)
	n, _ := json.Marshal(name)
	return fmt.Sprintf("%s(%s, %s)", finder, r, n)
}

// patience is how long the journey waits for what it expects to see.
const patience = 60 * time.Second

// until waits for a condition of the page.
func (b *browser) until(what, expression string) {
	b.t.Helper()
	deadline := time.Now().Add(patience)
	for {
		ctx, cancel := context.WithTimeout(b.ctx, patience)
		ok, err := chromedp.Run(ctx, chromedp.Evaluate[bool]("!!("+expression+")"))
		cancel()
		if err == nil && ok {
			return
		}
		if time.Now().After(deadline) {
			ctx, cancel := context.WithTimeout(b.ctx, patience)
			defer cancel()
			text, _ := chromedp.Run(ctx, chromedp.Evaluate[string]("location.hash + '\\n' + document.body.innerText.slice(0, 1500)"))
			b.t.Fatalf("did not come to be: %s (%v)\nthe page says:\n%s", what, err, text)
		}
		time.Sleep(25 * time.Millisecond)
	}
}

// visit goes to a place of the program.
func (b *browser) visit(path string) {
	b.t.Helper()
	if err := chromedp.Do(b.ctx, chromedp.Navigate(b.url+path)); err != nil {
		b.t.Fatalf("visit %s: %v", path, err)
	}
}

// steady does something to an element, again where the page drew that element anew between finding and touching it.
// Nothing has been touched then, so that it cannot be done twice.
func (b *browser) steady(a chromedp.Action[chromedp.Void]) error {
	for deadline := time.Now().Add(patience); ; {
		ctx, cancel := context.WithTimeout(b.ctx, patience)
		err := chromedp.Do(ctx, a)
		cancel()
		if err == nil || !strings.Contains(err.Error(), "node") || time.Now().After(deadline) {
			return err
		}
		time.Sleep(25 * time.Millisecond)
	}
}

// armed lets only the element that is meant take the press to come: where the page moved under the pointer meanwhile,
// as it does when figures arrive above, the press is swallowed and told as a miss.
const armed = `((el) => {
  window.pressed = undefined;
  if (!el) return false; // drawn anew since it was found
  const on = (e) => {
    const hit = el.contains(e.target) || e.target.contains(el) && e.target.tagName === 'LABEL';
    if (!hit) { e.stopImmediatePropagation(); e.preventDefault(); }
    if (e.type === 'mousedown' || !hit) window.pressed = hit;
    if (e.type === 'click') ['pointerdown', 'mousedown', 'mouseup', 'click'].forEach((k) => window.removeEventListener(k, on, true));
  };
  ['pointerdown', 'mousedown', 'mouseup', 'click'].forEach((k) => window.addEventListener(k, on, true));
  setTimeout(() => ['pointerdown', 'mousedown', 'mouseup', 'click'].forEach((k) => window.removeEventListener(k, on, true)), 2000);
  return true;
})`

// press clicks what has the role and name.
func (b *browser) press(role, name string) {
	b.t.Helper()
	for range 20 {
		b.until(role+" "+name, quoted(role, name))
		if b.eval(armed+"("+quoted(role, name)+")") == false {
			continue
		}
		if err := b.steady(chromedp.Click(chromedp.JSPath(quoted(role, name)))); err != nil {
			b.t.Fatalf("press %s %q: %v", role, name, err)
		}
		if b.eval("window.pressed") != false {
			return
		}
		b.eval(quoted(role, name) + "?.scrollIntoView({block: 'center'})") // from under a bar that stays in sight
		time.Sleep(50 * time.Millisecond)
	}
	b.t.Fatalf("press %s %q: it never lay under the pointer", role, name)
}

// fill replaces what stands in a field.
func (b *browser) fill(name, text string) {
	b.t.Helper()
	b.until("field "+name, quoted("textbox", name))
	b.eval(quoted("textbox", name) + ".select()")
	if err := b.steady(chromedp.SendKeys(chromedp.JSPath(quoted("textbox", name)), text)); err != nil {
		b.t.Fatalf("fill %q: %v", name, err)
	}
}

// date enters a day, as YYYY-MM-DD, in the open dialog's field for one.
func (b *browser) date(day string) {
	b.t.Helper()
	b.until("a field for a day", "document.querySelector('dialog[open] input[type=date]')")
	b.eval(fmt.Sprintf(`(() => { const e = document.querySelector('dialog[open] input[type=date]'); e.value = %q; e.dispatchEvent(new Event('input', {bubbles: true})); })()`, day))
}

// hour enters an hour of a day, as HH:MM, in the field of a name: which keys do it hangs on the browser's region.
func (b *browser) hour(name, at string) {
	b.t.Helper()
	b.until("field "+name, quoted("textbox", name))
	b.eval(fmt.Sprintf(`((e) => { e.value = %q; e.dispatchEvent(new Event('input', {bubbles: true})); })(%s)`, at, quoted("textbox", name)))
}

// choose picks an option of a list by its words.
func (b *browser) choose(name, option string) {
	b.t.Helper()
	b.until("list "+name, quoted("combobox", name))
	o, _ := json.Marshal(option)
	b.until("option "+option, fmt.Sprintf("[...%s.options].some((o) => o.text === %s)", quoted("combobox", name), o))
	b.eval(fmt.Sprintf("((e) => { e.value = [...e.options].find((o) => o.text === %s).value; e.dispatchEvent(new Event('input', {bubbles: true})); e.dispatchEvent(new Event('change', {bubbles: true})); })(%s)", o, quoted("combobox", name)))
}

// key presses one key as a keyboard does: what it types is left out when the page takes the key for itself.
func (b *browser) key(k string) {
	b.t.Helper()
	p := input.DispatchKeyEventParams{Type: "keyDown", Key: k, Text: k}
	switch k {
	case "Enter":
		p.Text, p.WindowsVirtualKeyCode = "\r", 13
	case "Backspace":
		p.Text, p.WindowsVirtualKeyCode = "", 8
	case " ":
		p.WindowsVirtualKeyCode = 32
	case "Escape":
		p.Text, p.WindowsVirtualKeyCode = "", 27
	case "ArrowDown", "ArrowUp", "ArrowLeft", "ArrowRight":
		p.Text = ""
	}
	_, err := chromedp.Call(b.ctx, input.DispatchKeyEvent, p)
	if err == nil {
		p.Type, p.Text = "keyUp", ""
		_, err = chromedp.Call(b.ctx, input.DispatchKeyEvent, p)
	}
	if err != nil {
		b.t.Fatalf("key %q: %v", k, err)
	}
}

// typeText types into the field that has the focus.
func (b *browser) typeText(text string) {
	b.t.Helper()
	for _, r := range text {
		b.key(string(r))
	}
}

// see waits until the page shows a text.
func (b *browser) see(text string) {
	b.t.Helper()
	n, _ := json.Marshal(text)
	b.until("text "+text, fmt.Sprintf("document.body.innerText.replace(/\\s+/g, ' ').includes(%s)", n))
}

// eval runs a script and gives its value.
func (b *browser) eval(expression string) any {
	b.t.Helper()
	// What is undefined or null is told apart from what went wrong: the value comes in a list.
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]any]("[("+expression+") ?? null]"))
	if err != nil || len(v) != 1 {
		b.t.Fatalf("script: %v\n%s", err, expression)
	}
	return v[0]
}

// text is the text of an element by its test mark or CSS path.
func (b *browser) text(css string) string {
	b.t.Helper()
	n, _ := json.Marshal(css)
	v, _ := b.eval(fmt.Sprintf("document.querySelector(%s)?.innerText ?? ''", n)).(string)
	return v
}

// quiet is what the page says of itself when nothing is under way: no answer that is waited for, no work, no movement,
// and that for as long as three frames.
const quiet = `(async () => {
  const still = () => document.readyState === 'complete' && document.fonts.status === 'loaded' && !document.querySelector('[aria-busy=true]') &&
    (document.documentElement.dataset.requests ?? '0') === '0' && document.getAnimations().every((a) => a.playState !== 'running' || a.effect?.getComputedTiming().endTime === Infinity);
  for (let n = 0; n < 3; n++) {
    if (!still()) return false;
    await new Promise((r) => setTimeout(r, 17)); // frames, which a page behind another does not get
  }
  return still();
})()`

// settled waits until nothing is under way.
func (b *browser) settled() {
	b.t.Helper()
	for deadline := time.Now().Add(patience); ; time.Sleep(25 * time.Millisecond) {
		ctx, cancel := context.WithTimeout(b.ctx, patience)
		still, err := chromedp.Run(ctx, chromedp.Evaluate[bool](quiet, chromedp.EvalAwaitPromise))
		cancel()
		if err == nil && still {
			return
		}
		if time.Now().After(deadline) {
			b.t.Fatalf("the page does not come to rest: %v\n%v", err, b.eval(`[document.readyState, document.fonts.status, 'requests ' + document.documentElement.dataset.requests,
				...[...document.querySelectorAll('[aria-busy=true]')].map((e) => 'busy ' + e.outerHTML.slice(0, 100)),
				...document.getAnimations().map((a) => a.playState + ' ' + (a.animationName ?? a.transitionProperty) + ' ' + a.effect?.target?.outerHTML.slice(0, 100))].join('\n')`))
		}
	}
}

// shot takes a picture of what is in sight.
func (b *browser) shot(file string) {
	b.t.Helper()
	b.settled()
	png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		b.t.Fatal(err)
	}
	if err := os.WriteFile(file, png, 0o644); err != nil {
		b.t.Fatal(err)
	}
}

// printed is on how many pages of A4 what stands there prints.
func (b *browser) printed() int {
	b.t.Helper()
	b.settled()
	r, err := chromedp.Call(b.ctx, page.PrintToPDF, page.PrintToPDFParams{PaperWidth: 8.27, PaperHeight: 11.69})
	if err != nil {
		b.t.Fatal(err)
	}
	return len(regexp.MustCompile(`/Type\s*/Page\b`).FindAll(r.Data, -1))
}

// accessible fails on violations of WCAG level A or AA on the page as it stands.
func (b *browser) accessible(where string) {
	b.t.Helper()
	b.settled()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		b.t.Fatal(err)
	}
	b.eval("window.axe || (0, eval)(" + string(must(json.Marshal(string(axe)))) + "), true")
	found, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]string](`axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']})
	  .then((r) => r.violations.map((v) => v.id + ': ' + v.help + ' — ' + v.nodes.slice(0, 3).map((n) => n.html.slice(0, 200) + ' ' + (n.any[0]?.message ?? '')).join(' | ')))`, chromedp.EvalAwaitPromise))
	if err != nil {
		b.t.Fatalf("accessibility of %s: %v", where, err)
	}
	for _, f := range found {
		b.t.Errorf("%s: %s", where, f)
	}
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// upload gives a file to a file field.
func (b *browser) upload(name, path string) {
	b.t.Helper()
	b.until("file field "+name, quoted("file", name))
	if err := b.steady(chromedp.SetUploadFiles(chromedp.JSPath(quoted("file", name)), []string{path}, chromedp.NodeReady)); err != nil {
		b.t.Fatalf("upload %q: %v", name, err)
	}
}
