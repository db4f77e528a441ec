package standin

import (
	"bufio"
	"html/template"
	"mime"
	"net"
	"net/http"
	"net/mail"
	"slices"
	"strings"
	"sync"
)

// Letter is one that a mailbox has taken.
type Letter struct {
	From    string
	To      []string
	Subject string
	Body    string
	Files   []Attached
}

// Attached is a file that came with a letter.
type Attached struct{ Name, Text string }

// Mailbox takes mail as a server does and keeps it for the sample and for tests. It delivers to nobody.
type Mailbox struct {
	mu      sync.Mutex
	letters []Letter
	failing string // answer to every letter while it is not empty
}

// Fail has the mailbox answer so to every letter, such as "451 try again later"; empty: it takes them.
func (m *Mailbox) Fail(answer string) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.failing = answer
}

// Letters are those it took, the oldest first.
func (m *Mailbox) Letters() []Letter {
	m.mu.Lock()
	defer m.mu.Unlock()
	return slices.Clone(m.letters)
}

// Serve takes mail until the listener is closed.
func (m *Mailbox) Serve(l net.Listener) error {
	for {
		c, err := l.Accept()
		if err != nil {
			return err
		}
		go m.talk(c)
	}
}

// talk is one conversation.
func (m *Mailbox) talk(c net.Conn) {
	defer c.Close()
	in := bufio.NewScanner(c)
	in.Buffer(make([]byte, 64<<10), 10<<20)
	say := func(line string) bool { _, err := c.Write([]byte(line + "\r\n")); return err == nil }
	say("220 mailbox of made-up letters")
	var l Letter
	for in.Scan() {
		word, rest, _ := strings.Cut(in.Text(), " ")
		answer := "250 ok"
		switch strings.ToUpper(word) {
		case "EHLO", "HELO":
			answer = "250 mailbox"
		case "MAIL":
			l = Letter{From: address(rest)}
		case "RCPT":
			m.mu.Lock()
			if m.failing != "" {
				answer = m.failing
			}
			m.mu.Unlock()
			l.To = append(l.To, address(rest))
		case "DATA":
			if !say("354 go on") || !m.take(in, &l) {
				return
			}
		case "QUIT":
			say("221 bye")
			return
		}
		if !say(answer) {
			return
		}
	}
}

// take reads a letter up to its end.
func (m *Mailbox) take(in *bufio.Scanner, l *Letter) bool {
	var text strings.Builder
	for in.Scan() {
		line := in.Text()
		if line == "." {
			msg, err := mail.ReadMessage(strings.NewReader(text.String()))
			if err != nil {
				return false
			}
			l.Subject, _ = new(mime.WordDecoder).DecodeHeader(msg.Header.Get("Subject"))
			l.read(msg)
			m.mu.Lock()
			m.letters = append(m.letters, *l)
			m.mu.Unlock()
			return true
		}
		text.WriteString(strings.TrimPrefix(line, ".") + "\r\n")
	}
	return false
}

func address(rest string) string {
	_, a, _ := strings.Cut(rest, "<")
	a, _, _ = strings.Cut(a, ">")
	return a
}

var mailboxPage = template.Must(
	template.New("").Parse(`<!doctype html><meta charset=utf-8><title>Mailbox of made-up letters</title>
<body style="font:16px sans-serif;max-width:50rem;margin:2rem auto"><h1>Mailbox of made-up letters</h1><p>Nothing here was delivered to anybody.</p>
{{range .}}<article style="border-top:1px solid #ccc"><p><b>{{.Subject}}</b><br>to {{range .To}}{{.}} {{end}}</p><pre style="white-space:pre-wrap">{{.Body}}</pre>{{range .Files}}<details><summary>{{.Name}}</summary><pre>{{.Text}}</pre></details>{{end}}</article>{{else}}<p>No letter yet.</p>{{end}}`),
)

// ServeHTTP shows the letters on a page, the newest first.
func (m *Mailbox) ServeHTTP(w http.ResponseWriter, _ *http.Request) {
	list := m.Letters()
	slices.Reverse(list)
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	_ = mailboxPage.Execute(w, list) // whoever reads went away
}
