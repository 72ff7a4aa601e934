package server

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2/sse"
	"github.com/gin-gonic/gin"

	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/demo/sim"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
)

type proofIn struct {
	ID        string  `path:"id"`
	Motif     string  `query:"motif" required:"true"`
	Colourway string  `query:"colourway" required:"true"`
	DPI       float64 `query:"dpi" minimum:"0" maximum:"2400" doc:"dots to the inch; 0 takes what the file says"`
	RawBody   []byte  `contentType:"application/octet-stream"`
}

// Proofed is a proof measured.
type Proofed struct {
	Against string         `json:"against" doc:"label of the layer the others are measured against"`
	Layers  []plan.Verdict `json:"layers" nullable:"false"`
	Notes   []string       `json:"notes" nullable:"false"`
	Sure    string         `json:"sure" doc:"how well the picture was understood, in words"`
}

func (s *Server) proofs() {
	long := op("measure-proof", http.MethodPost, "/api/cards/{id}/proof", "Measure how far the layers of a printed proof are off")
	long.MaxBodyBytes = maxUpload
	sse.Register(s.api, long, map[string]any{"progress": Progress{}, "measured": Proofed{}, "refused": Refusal{}}, func(ctx context.Context, in *proofIn, send sse.Sender) {
		stream(ctx, send, func(ctx context.Context, tell func(float64, string)) (any, error) {
			return s.measureProof(ctx, in, tell)
		})
	})
}

func (s *Server) measureProof(ctx context.Context, in *proofIn, tell func(float64, string)) (Proofed, error) {
	tell(0.02, "Opening the picture")
	pic, err := picture.Decode(in.RawBody)
	if err != nil {
		return Proofed{}, err
	}
	dpi := in.DPI
	if dpi == 0 {
		dpi = pic.DPI
	}
	if dpi == 0 {
		return Proofed{}, errNoDPI
	}
	if dpi < 100 {
		return Proofed{}, &picture.Problem{What: fmt.Sprintf("At %.4g dots to the inch a proof cannot be measured.", dpi), Mend: "Scan at 200 dpi or more; 300 is plenty."}
	}
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return Proofed{}, err
	}
	prints, paper, err := s.maker.Prints(v.Card, k, in.Motif, in.Colourway)
	if err != nil {
		return Proofed{}, err
	}
	layers := make([]proof.Layer, len(prints))
	for i, p := range prints {
		layers[i] = proof.Layer{Label: p.Label, Region: p.Region, Film: p.Film, Strikes: p.Strikes}
	}
	tell(0.1, "Looking for every layer by its ink")
	got, err := proof.Measure(ctx, pic, dpi, paper, layers)
	if err != nil {
		return Proofed{}, err
	}
	out := Proofed{Against: prints[0].Label, Layers: []plan.Verdict{}, Notes: append(append([]string{}, pic.Notes...), got.Notes...)}
	out.Sure = fmt.Sprintf("The print as measured explains the picture to %.1f %%. The sheet lay %.1f° askew, which is left out.", 100*(1-got.Miss), math.Abs(got.Sheet.Turn))
	for i := 1; i < len(prints); i++ {
		o := got.Layers[i]
		if o.Lost {
			out.Layers = append(out.Layers, plan.Verdict{Layer: prints[i].Layer, Label: prints[i].Label, Lost: true,
				Say: "It could not be made out. Is it printed, in this ink, and not hidden under another?"})
			continue
		}
		out.Layers = append(out.Layers, plan.Judge(prints[i], o.Shift, o.Turn, o.SureShift, o.SureTurn))
	}
	tell(1, "Measured")
	return out, nil
}

// simulatedProof serves a scan of a proof from the simulated scanner, in the
// demo: off by up to 1 mm and 1.5°, as the seed has it. With what the paper was
// moved by for each layer, it is the next print of the same press.
func (s *Server) simulatedProof(c *gin.Context) {
	ctx := c.Request.Context()
	seed, _ := strconv.ParseUint(c.DefaultQuery("seed", "1"), 10, 32)
	v, k, err := s.cardAndKit(ctx, c.Query("card"))
	if err != nil {
		refuse(c, err)
		return
	}
	prints, paper, err := s.maker.Prints(v.Card, k, c.Query("motif"), c.Query("colourway"))
	if err == nil && len(prints) == 0 {
		err = kit.Problem{Path: "motif", What: "this image has no printed layer with an ink"}
	}
	if err != nil {
		refuse(c, err)
		return
	}
	layers := make([]sim.Layer, len(prints))
	for i, p := range prints {
		layers[i] = sim.Layer{Region: p.Region, Film: p.Film}
	}
	// The paper moved for a strike takes the print the other way against it.
	corrections := make([]register.Motion, len(prints))
	for _, said := range c.QueryArray("moved") {
		var x, y, turn float64
		id, numbers, _ := strings.Cut(said, " ")
		if _, err := fmt.Sscanf(numbers, "%g %g %g", &x, &y, &turn); err != nil {
			refuse(c, kit.Problem{Path: "moved", What: "give a layer and how the paper was moved: id, mm right, mm down, degrees clockwise"})
			return
		}
		for i, p := range prints {
			if p.Layer == id {
				mid := p.Region.Centroid()
				m := register.Motion{Turn: turn}
				m.Move = mid.Sub(m.Point(mid)).Add(shape.Point{X: x, Y: y})
				corrections[i] = m.Inverse()
			}
		}
	}
	b, _ := sim.Proof(layers, paper, 1, 1.5, 3, seed, corrections...)
	g := sim.Plain()
	g.Dust = 0
	img, err := sim.PNG(b.Scan(deviceDPI, g, seed), deviceDPI)
	if err != nil {
		refuse(c, err)
		return
	}
	c.Data(http.StatusOK, "image/png", img)
}
