package api

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/house/learn"
)

func (s *Server) learnRoutes(a huma.API) {
	op(a, planner, get, "/pace", doc{"pace", "Ledger", "How long work takes the firm", "Against what is reckoned, by kind of work, crew and size of the job, with how sure that is: drawn from the minutes that were noted.", reads, 0}, s.pace)
	op(a, planner, put, "/pace", doc{"set-pace", "Ledger", "Use the firm's own pace, or not", "In rounds and estimates.", writes, 0}, s.setPace, `{"on": true}`)
}

func (s *Server) pace(ctx context.Context, _ *struct{}) (*Out[learn.PaceTold], error) {
	p, err := s.Learn.PaceTold(ctx)
	return out(p), s.problem(ctx, "pace", err)
}

func (s *Server) setPace(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		On bool `json:"on" doc:"It is used in rounds and estimates"`
	}
}) (*Out[learn.PaceTold], error) {
	p, err := s.Learn.SetPace(ctx, keyOf(ctx), in.Body.On)
	return out(p), s.problem(ctx, "pace", err)
}
