package server

import (
	"context"
	"fmt"
	"math"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"ochrestone/core/card"
	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
	"ochrestone/vision/trace"
)

type proofIn struct {
	ID        string  `path:"id"`
	Motif     string  `query:"motif" required:"true"`
	Colourway string  `query:"colourway" required:"true"`
	DPI       float64 `query:"dpi" minimum:"0" maximum:"2400" doc:"dots to the inch; 0 takes what the file says"`
	As        string  `query:"as" enum:"scan,mat" default:"scan" doc:"a scan, or a photograph on the measuring mat"`
	RawBody   []byte  `contentType:"application/octet-stream"`
}

// Proofed is what was measured in a picture.
type Proofed struct {
	Against string               `json:"against" doc:"label of the layer the others are measured against"`
	Prints  []ProofedPrint       `json:"prints" nullable:"false" doc:"as one reads: by rows, from the left"`
	Run     []placing.RunVerdict `json:"run" nullable:"false" doc:"by layer over all prints, when there are several"`
	Notes   []string             `json:"notes" nullable:"false" doc:"on the whole picture"`
}

// ProofedPrint is one print measured.
type ProofedPrint struct {
	Layers []placing.Verdict `json:"layers" nullable:"false"`
	Notes  []string          `json:"notes" nullable:"false"`
	Sure   string            `json:"sure" doc:"how well it was understood, in words"`
	Wrong  string            `json:"wrong,omitempty" doc:"why it could not be measured"`
}

func (s *Server) proofs() {
	long := op("measure-proof", http.MethodPost, "/api/cards/{id}/proof", "Measure how far the layers of printed proofs are off")
	long.MaxBodyBytes = maxUpload
	sse.Register(s.api, long, map[string]any{"progress": Progress{}, "measured": Proofed{}, "refused": Refusal{}}, func(ctx context.Context, in *proofIn, send sse.Sender) {
		s.stream(ctx, send, func(ctx context.Context, tell func(float64, string)) (any, error) {
			return s.measureProof(ctx, in, tell)
		})
	})
	huma.Register(s.api, op("point-marks", http.MethodGet, "/api/cards/{id}/marks", "Corners of the printed layers to point at in a picture"), s.marks)
	huma.Register(s.api, op("point-proof", http.MethodPost, "/api/cards/{id}/points", "Measure how far layers are off from points set by hand"), s.pointed)
}

func (s *Server) measureProof(ctx context.Context, in *proofIn, tell func(float64, string)) (Proofed, error) {
	tell(0.02, "Opening the picture")
	pic, err := picture.Decode(in.RawBody)
	if err != nil {
		return Proofed{}, err
	}
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return Proofed{}, err
	}
	prints, paper, err := s.prints(ctx, v.Card, k, in.Motif, in.Colourway)
	if err != nil {
		return Proofed{}, err
	}
	plane, err := planeOf(pic, in, tell)
	if err != nil {
		return Proofed{}, err
	}
	layers := make([]proof.Layer, len(prints))
	for i, p := range prints {
		layers[i] = proof.Layer{Label: p.Label, Region: p.Region, Film: p.Film, Strikes: p.Strikes}
	}
	w, _ := s.writing(ctx)
	got, err := proof.Measure(ctx, plane, paper, layers, proof.Writing(w), proof.Progress(func(share float64, what string) { tell(0.1+0.9*share, what) }))
	if err != nil {
		return Proofed{}, err
	}
	out := Proofed{Against: prints[0].Label, Prints: []ProofedPrint{}, Run: []placing.RunVerdict{}, Notes: append(append([]string{}, pic.Notes...), got.Notes...)}
	var verdicts [][]placing.Verdict
	for _, r := range got.Prints {
		p := printed(prints, r, w)
		out.Prints = append(out.Prints, p)
		if p.Wrong == "" {
			verdicts = append(verdicts, p.Layers)
		}
	}
	if len(verdicts) > 1 {
		out.Run = placing.JudgeRun(verdicts, w)
	}
	tell(1, "Measured")
	return out, nil
}

// planeOf brings a picture to true size.
func planeOf(pic *picture.Picture, in *proofIn, tell func(float64, string)) (*proof.Plane, error) {
	if in.As == "mat" {
		tell(0.05, "Finding the measuring mat")
		return proof.OnMat(pic)
	}
	dpi := pic.Typed(in.DPI)
	if dpi == 0 {
		dpi = pic.DPI
	}
	if dpi == 0 {
		return nil, errNoDPI
	}
	if _, err := trace.Glass(float64(pic.W)*25.4/dpi, float64(pic.H)*25.4/dpi, dpi); err != nil {
		return nil, err
	}
	return proof.Scan(pic, dpi)
}

// printed judges one measured print.
func printed(prints []placing.Print, r proof.Result, w measure.Writing) ProofedPrint {
	p := ProofedPrint{Layers: []placing.Verdict{}, Notes: append([]string{}, r.Notes...)}
	if r.Err != nil {
		p.Wrong = r.Err.Error()
		return p
	}
	p.Sure = fmt.Sprintf("The print as measured explains the picture to %.1f %%. It lay %.1f° askew, which is left out.", 100*(1-r.Miss), math.Abs(r.Sheet.Turn))
	for i := 1; i < len(prints); i++ {
		o := r.Layers[i]
		if o.Lost {
			p.Layers = append(p.Layers, placing.Verdict{Layer: prints[i].Layer, Label: prints[i].Label, Lost: true,
				Say: "It could not be made out. Is it printed, in this ink, and not hidden under another?"})
			continue
		}
		p.Layers = append(p.Layers, placing.Judge(prints[i], o.Shift, o.Turn, o.SureShift, o.SureTurn, w))
	}
	return p
}

type marksIn struct {
	ID        string `path:"id"`
	Motif     string `query:"motif" required:"true"`
	Colourway string `query:"colourway" required:"true"`
}

// LayerMarks are the corners of one printed layer to point at.
type LayerMarks struct {
	Layer  string             `json:"layer"`
	Label  string             `json:"label"`
	Points []register.Feature `json:"points" nullable:"false"`
}

type marksOut struct {
	Body struct {
		Layers []LayerMarks `json:"layers" nullable:"false" doc:"the first is what the others are measured against"`
	}
}

func (s *Server) marks(ctx context.Context, in *marksIn) (*marksOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	prints, _, err := s.prints(ctx, v.Card, k, in.Motif, in.Colourway)
	if err != nil {
		return nil, problem(err)
	}
	out := &marksOut{}
	out.Body.Layers = []LayerMarks{}
	for _, p := range prints {
		out.Body.Layers = append(out.Body.Layers, LayerMarks{p.Layer, p.Label, append([]register.Feature{}, p.Marks...)})
	}
	return out, nil
}

// PointedLayer is what a person pointed at for one layer.
type PointedLayer struct {
	Layer  string `json:"layer"`
	Design []Spot `json:"design" nullable:"false" maxItems:"24" doc:"corners of the design, mm"`
	Seen   []Spot `json:"seen" nullable:"false" maxItems:"24" doc:"where they are seen in the picture, pixels"`
}

// Spot is a place.
type Spot struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// points are spots as points.
func points(spots []Spot) []shape.Point {
	out := make([]shape.Point, len(spots))
	for i, s := range spots {
		out[i] = shape.Point{X: s.X, Y: s.Y}
	}
	return out
}

type pointsIn struct {
	ID   string `path:"id"`
	Body struct {
		Motif     string         `json:"motif"`
		Colourway string         `json:"colourway"`
		DPI       float64        `json:"dpi" minimum:"0" maximum:"2400" doc:"dots to the inch; 0 takes the size from the layer the others are measured against"`
		Layers    []PointedLayer `json:"layers" nullable:"false" minItems:"2" maxItems:"12"`
	}
}

type pointsOut struct{ Body ProofedPrint }

// pointed measures layers from points set by hand: each layer's motion from the
// design into the picture, seen from that of the first layer.
func (s *Server) pointed(ctx context.Context, in *pointsIn) (*pointsOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	prints, _, err := s.prints(ctx, v.Card, k, in.Body.Motif, in.Body.Colourway)
	if err != nil {
		return nil, problem(err)
	}
	w, _ := s.writing(ctx)
	at := make([]placing.PointedAt, len(in.Body.Layers))
	for i, l := range in.Body.Layers {
		at[i] = placing.PointedAt{Layer: l.Layer, Design: points(l.Design), Seen: points(l.Seen)}
	}
	got, err := placing.Points(prints, in.Body.DPI, at, w)
	if err != nil {
		return nil, problem(err)
	}
	return &pointsOut{ProofedPrint{Layers: got.Layers, Notes: got.Notes, Sure: got.Sure}}, nil
}

// labelsOf names the layers of an image.
func labelsOf(c card.Card, motif string) map[string]string {
	out := map[string]string{}
	if m, ok := c.Motif(motif); ok {
		for _, l := range m.Layers {
			out[l.ID] = l.Label
		}
	}
	return out
}

// prints lists the printed layers of an image that a proof can show.
func (s *Server) prints(ctx context.Context, c card.Card, k kit.Kit, motif, colourway string) ([]placing.Print, colour.Linear, error) {
	study, err := s.planner.Placing(c, k, motif, s.assume(ctx)...)
	if err != nil {
		return nil, colour.Linear{}, err
	}
	return study.Prints(colourway)
}
