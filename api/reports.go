package api

import (
	"bytes"
	"context"

	"mezzadro/core/quantity"
	"mezzadro/core/report"
	"mezzadro/exchange"
	"mezzadro/house/ledger"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) reportRoutes(a huma.API) {
	op(a, planner, get, "/reports", doc{"reports", "Ledger", "Reports to clients", "The newest first; of one property where it is asked for.", readsOf, 0}, s.reports)
	op(a, planner, post, "/reports", doc{"add-report", "Ledger", "Write a report", "Of what hard weather did, of the year, or for an insurer: from what was found and decided, as a draft to be gone over.", adds, 0}, s.addReport, `{"property_id": 1, "kind": "season"}`)
	op(a, planner, get, "/reports/{id}", doc{"report", "Ledger", "One report", "As it stands.", readsOf, 0}, s.report)
	op(a, planner, put, "/reports/{id}", doc{"change-report", "Ledger", "Keep a report as it was gone over", "Words, sections and pictures; while it is a draft.", writes, 0}, s.changeReport, `{"title": "How your plants stand", "summary": [], "nights": [], "sections": [], "version": 1}`)
	op(a, planner, post, "/reports/{id}/send", doc{"send-report", "Ledger", "Have the client's link show a report", "It is kept as it is. No mail goes out.", writes, 0}, s.sendReport, `{"version": 1}`)
	op(a, planner, post, "/reports/{id}/back", doc{"report-back", "Ledger", "Take a report back", "The link does not show it any more, and it can be changed.", writes, 0}, s.reportBack, `{"version": 1}`)
	op(a, planner, remove, "/reports/{id}", doc{"remove-report", "Ledger", "Take a draft out", "One that was sent stays.", writes, 0}, s.removeReport)
	op(a, planner, get, "/reports/{id}/report.pdf", doc{"report-pdf", "Ledger", "A report as PDF", "Its first page is the summary.", readsOf, 0}, s.reportPDF)
	op(a, anyone, get, "/client/pictures/{hash}", doc{"client-picture", "Ledger", "A picture of a report", "By the client's link that this browser opened: of reports that were sent to it alone.", readsOf, 0}, s.clientPicture)
}

func (s *Server) reports(ctx context.Context, in *OfProperty) (*Out[Run[ledger.Report]], error) {
	list, err := s.Ledger.Reports(ctx, in.Property)
	return out(Run[ledger.Report]{Items: list}), s.Problem(ctx, "reports", err)
}

func (s *Server) addReport(ctx context.Context, in *struct {
	OnceKey
	Body ledger.ReportIn
}) (*Out[ledger.Report], error) {
	r, err := s.Ledger.AddReport(ctx, keyOf(ctx), in.Body)
	return out(r), s.Problem(ctx, "property", err)
}

func (s *Server) report(ctx context.Context, in *ByID) (*Out[ledger.Report], error) {
	r, err := s.Ledger.Report(ctx, in.ID)
	return out(r), s.Problem(ctx, "report", err)
}

func (s *Server) changeReport(ctx context.Context, in *struct {
	Write
	Reader
	Body ledger.ReportChange
}) (*Out[ledger.Report], error) {
	r, err := s.Ledger.ChangeReport(ctx, keyOf(ctx), in.ID, in.Body, s.StyleOf(ctx, in.Language))
	return out(r), s.Problem(ctx, "report", err)
}

func (s *Server) sendReport(ctx context.Context, in *OfVersion) (*Out[ledger.Report], error) {
	r, err := s.Ledger.SendReport(ctx, keyOf(ctx), in.ID, in.Body.Version, true)
	return out(r), s.Problem(ctx, "report", err)
}

func (s *Server) reportBack(ctx context.Context, in *OfVersion) (*Out[ledger.Report], error) {
	r, err := s.Ledger.SendReport(ctx, keyOf(ctx), in.ID, in.Body.Version, false)
	return out(r), s.Problem(ctx, "report", err)
}

func (s *Server) removeReport(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "draft", s.Ledger.RemoveReport(ctx, keyOf(ctx), in.ID))
}

func (s *Server) reportPDF(ctx context.Context, in *struct {
	ByID
	Reader
}) (*File, error) {
	r, err := s.Ledger.Report(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "report", err)
	}
	firm, err := s.Estate.Firm(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "firm", err)
	}
	style := s.StyleOf(ctx, in.Language)
	page := exchange.ReportPage{Report: ledger.InStyle(r.Report, style), Firm: firm.Name, Day: dated(style).Text(quantity.Day(r.Day)),
		Degrees: func(c float64) string { return style.Text(quantity.Temperature(c)) },
		When:    func(n report.Night) string { return style.Text(quantity.Day(n.Day)) },
		Picture: s.Estate.Store.Picture}
	var b bytes.Buffer
	err = exchange.WriteReport(&b, s.paper(ctx, in.Language), page)
	return attached(page.Title, "report.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "report", err)
}

func (s *Server) clientPicture(ctx context.Context, in *struct {
	Hash string `path:"hash" maxLength:"64" example:"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855" doc:"Of the picture"`
}) (*PictureOut, error) {
	b, err := s.Ledger.SentPicture(ctx, s.sessions.GetString(ctx, sessionClient), in.Hash)
	if err != nil {
		return nil, s.Problem(ctx, "picture", err)
	}
	return &PictureOut{"image/jpeg", "private, max-age=86400", b}, nil
}
