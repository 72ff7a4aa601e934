package server

import (
	"bytes"
	"context"
	"fmt"
	"math"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"ochrestone/core/measure"
	"ochrestone/core/placing"
	"ochrestone/core/register"
	"ochrestone/exchange/sheet"
)

type placingIn struct {
	ID        string `path:"id"`
	Motif     string `query:"motif" required:"true"`
	Colourway string `query:"colourway" required:"true"`
	Layer     string `query:"layer" required:"true"`
	Run       int    `query:"run" minimum:"1" maximum:"200" default:"12" doc:"images wanted"`
}

type placingOut struct{ Body placing.Placing }

// chanceSeed makes the chances of a card the same at every look.
const chanceSeed = 20

func (s *Server) placing(ctx context.Context, in *placingIn) (*placingOut, error) {
	v, k, err := s.cardAndKit(ctx, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	study, err := s.planner.Placing(v.Card, k, in.Motif, s.assume(ctx)...)
	if err != nil {
		return nil, problem(err)
	}
	p, err := study.Of(in.Colourway, in.Layer, in.Run, chanceSeed)
	if err != nil {
		return nil, problem(err)
	}
	return &placingOut{p}, nil
}

type ringIn struct {
	Turns int     `query:"turns" minimum:"3" maximum:"16" required:"true"`
	Width float64 `query:"width" minimum:"1" maximum:"200" required:"true" doc:"of one image, mm"`
	Gap   float64 `query:"gap" minimum:"0" maximum:"50" doc:"between neighbours, mm"`
	Inner float64 `query:"inner" minimum:"0" maximum:"200" doc:"width of the images of a second ring between, mm; 0 for none"`
	Panel float64 `query:"panel" minimum:"0" maximum:"300" doc:"side of the square panel, mm; 0 for none"`
	Kind  string  `query:"kind" enum:"plate,disc" default:"plate"`
}

type ringOut struct {
	Body struct {
		Step    float64 `json:"step" doc:"turn from one image to the next, degrees"`
		Radius  float64 `json:"radius" doc:"where the middles lie for that gap, mm from the centre"`
		Touch   float64 `json:"touch" doc:"radius at which neighbours just touch, mm"`
		Across  float64 `json:"across" doc:"of the whole ring, mm"`
		Second  float64 `json:"second" doc:"radius of the second ring, mm; 0 when there is none or it does not fit"`
		Largest float64 `json:"largest" doc:"width of the largest image whose ring stays on the panel with that gap, mm; 0 without a panel"`
		Fits    bool    `json:"fits" doc:"a jig for it fits on the page"`
	}
}

func (s *Server) turnedRing(ctx context.Context, in *ringIn) (*ringOut, error) {
	out := &ringOut{}
	j := sheet.Jig{Turns: in.Turns, Width: in.Width, Gap: in.Gap, Inner: in.Inner, Panel: in.Panel, Round: in.Kind == "disc"}
	out.Body.Step, out.Body.Radius = register.Step(in.Turns), j.Radius()
	out.Body.Touch = register.TouchRadius(in.Turns, in.Width)
	out.Body.Across = 2 * (j.Radius() + in.Width/2)
	if r, ok := j.Second(); in.Inner > 0 && ok {
		out.Body.Second = r
	}
	if in.Panel > 0 {
		out.Body.Largest = register.LargestInRing(in.Turns, in.Panel/2, in.Gap)
	}
	out.Body.Fits = j.Reach() <= sheet.JigRoom(s.sheetSize(ctx))
	return out, nil
}

// sheetSize is the sheet of paper that goes with the person's unit.
func (s *Server) sheetSize(ctx context.Context) measure.Size {
	if _, set := s.writing(ctx); set.Unit == measure.Inches {
		return measure.Letter
	}
	return measure.A4
}

// jigPDF prints a turning jig.
func (s *Server) jigPDF(c *gin.Context) {
	num := func(name string) float64 {
		v, err := strconv.ParseFloat(c.DefaultQuery(name, "0"), 64)
		if err != nil || !(math.Abs(v) <= 1e4) {
			return -1 // refused as too small, with its name
		}
		return v
	}
	f, _ := s.writing(c.Request.Context())
	page := s.sheetSize(c.Request.Context())
	var b bytes.Buffer
	err := sheet.WriteJig(&b, sheet.Jig{Turns: int(num("turns")), Round: c.Query("kind") == "disc", Width: num("width"), Gap: num("gap"), Panel: num("panel"), Inner: num("inner")}, sheet.Page(page), sheet.Writing(f))
	if err != nil {
		refuse(c, err)
		return
	}
	c.Header("Content-Disposition", fmt.Sprintf(`inline; filename="turning-jig-%d.pdf"`, int(num("turns"))))
	c.Data(http.StatusOK, "application/pdf", b.Bytes())
}
