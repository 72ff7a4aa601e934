package server

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"net/http"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"ochrestone/core/measure"
	"ochrestone/core/shape"
	"ochrestone/vision/axes"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// Progress is how far long work is.
type Progress struct {
	Share float64 `json:"share" minimum:"0" maximum:"1"`
	What  string  `json:"what" doc:"what is being done"`
}

// Refusal says why long work came to nothing.
type Refusal struct {
	Type   string `json:"type"`
	Detail string `json:"detail"`
}

// TracedOutline is a piece, print or opening found in a picture.
type TracedOutline struct {
	Outline shape.Region `json:"outline" doc:"path data in mm"`
	Colour  string       `json:"colour" doc:"#rrggbb"`
	Area    float64      `json:"area" doc:"mm²"`
	W       float64      `json:"w" doc:"mm"`
	H       float64      `json:"h" doc:"mm"`
	Cut     bool         `json:"cut" doc:"runs over the edge of the picture"`
	Touches bool         `json:"touches" doc:"may be two pieces that touch"`
	Sure    float64      `json:"sure,omitempty" doc:"95 of 100 points of the edge lie within so much of the outline, mm; 0 where it is not known"`
	Size    float64      `json:"size,omitempty" doc:"how sure its length is, the scale's doubt included, mm"`
	Said    string       `json:"said,omitempty" doc:"how sure the outline is, in words"`
	Doubt   string       `json:"doubt,omitempty" doc:"stretches of the outline in doubt, path data of M and L in mm"`
}

// Traced is what was found in a picture.
type Traced struct {
	Pieces []TracedOutline `json:"pieces" nullable:"false" doc:"largest first; prints and openings in reading order"`
	Notes  []string        `json:"notes" nullable:"false"`
	W      float64         `json:"w" doc:"of the sheet, or of the mat's field, mm"`
	H      float64         `json:"h" doc:"mm"`
	DPI    float64         `json:"dpi" doc:"dots to the inch; 0 for a photograph"`
	Sure   string          `json:"sure" doc:"how sure the scale is, in words"`
	Lines  string          `json:"lines,omitempty" doc:"lines etched into a stencil, path data of M and L in mm"`
}

type readIn struct {
	As      string  `query:"as" enum:"pieces,mat,stamps,stencil" doc:"what the picture shows"`
	Ground  string  `query:"ground" enum:"any,dark,light" default:"any"`
	DPI     float64 `query:"dpi" minimum:"0" maximum:"4800" doc:"dots to the inch; 0 takes what the file says"`
	Scanner string  `query:"scanner" maxLength:"60" doc:"name of the measured scanner it was scanned on; empty for one that was not"`
	Thick   float64 `query:"thick" minimum:"0" doc:"of a photograph: how thick the card of the pieces is, mm; 0 if it is not to count"`
	RawBody []byte  `contentType:"application/octet-stream"`
}

func (s *Server) scan() {
	long := op("read-picture", http.MethodPost, "/api/scan", "Turn a picture of pieces into outlines")
	long.MaxBodyBytes = maxUpload
	sse.Register(s.api, long, map[string]any{"progress": Progress{}, "found": Traced{}, "refused": Refusal{}}, func(ctx context.Context, in *readIn, send sse.Sender) {
		s.stream(ctx, send, func(ctx context.Context, tell func(float64, string)) (any, error) {
			return s.readPicture(ctx, in, tell)
		})
	})
	stack := op("stack-pieces", http.MethodPost, "/api/scan/stack", "Propose how loose pieces go together")
	stack.MaxBodyBytes = maxUpload
	sse.Register(s.api, stack, map[string]any{"progress": Progress{}, "stacked": Stacked{}, "refused": Refusal{}}, func(ctx context.Context, in *stackIn, send sse.Sender) {
		s.stream(ctx, send, func(ctx context.Context, tell func(float64, string)) (any, error) {
			return s.stackPieces(ctx, in, tell)
		})
	})
	huma.Register(s.api, op("split-piece", http.MethodPost, "/api/scan/split", "Cut an outline along a line"), func(_ context.Context, in *splitIn) (*splitOut, error) {
		parts, err := trace.Split(in.Body.Outline, shape.Point{X: in.Body.AX, Y: in.Body.AY}, shape.Point{X: in.Body.BX, Y: in.Body.BY})
		if err != nil {
			return nil, problem(err)
		}
		out := &splitOut{Body: []TracedOutline{}}
		for _, g := range parts {
			out.Body = append(out.Body, outlineOf(g, in.Body.Colour))
		}
		return out, nil
	})
	snap := op("snap-piece", http.MethodPost, "/api/scan/snap", "Draw a piece put roughly by hand to the edge, hole or axis it goes by")
	snap.MaxBodyBytes = maxUpload
	huma.Register(s.api, snap, s.snapPiece)
	keepSet := op("keep-stack", http.MethodPost, "/api/scan/keep", "Keep a stack of outlines as a set")
	keepSet.MaxBodyBytes = maxUpload
	huma.Register(s.api, keepSet, s.keepStack)
}

// stream runs long work in its turn, sends its progress and its outcome, and stops
// it when the client goes away.
func (s *Server) stream(ctx context.Context, send sse.Sender, work func(context.Context, func(float64, string)) (any, error)) {
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	var mu sync.Mutex
	last := -1.0
	said := ""
	tell := func(share float64, what string) {
		mu.Lock()
		defer mu.Unlock()
		if share-last < 0.01 && share < 1 && (share > 0 || what == said) {
			return
		}
		last, said = share, what
		if send.Data(Progress{share, what}) != nil {
			stop() // the client has gone
		}
	}
	out, err := heavy(ctx, &s.jobs, tell, func() (out any, err error) {
		defer func() {
			if v := recover(); v != nil {
				out, err = nil, fmt.Errorf("it went wrong within: %v", v)
			}
		}()
		return work(ctx, tell)
	})
	mu.Lock()
	defer mu.Unlock()
	if err != nil {
		_ = send.Data(refusal(err))
		return
	}
	_ = send.Data(out)
}

func refusal(err error) Refusal {
	var pic *picture.Problem
	switch {
	case errors.As(err, &pic):
		return Refusal{"/problems/picture", pic.Error()}
	case errors.Is(err, context.Canceled):
		return Refusal{"/problems/cancelled", "Stopped. Nothing was kept."}
	}
	slog.Error("reading a picture failed", "error", err)
	return Refusal{"/problems/internal", "Something went wrong here. Nothing was kept; try again."}
}

func outlineOf(g shape.Region, colour string) TracedOutline {
	b := g.Bounds()
	return TracedOutline{Outline: g, Colour: colour, Area: g.Area(), W: b.W(), H: b.H()}
}

// errNoDPI asks for the resolution of a scan.
var errNoDPI = &picture.Problem{What: "The file does not say at how many dots to the inch it was scanned.", Mend: "Type it in: it stands in the scanner's settings, often 300. If it is a photograph, lay the pieces on the printed measuring mat and choose that instead."}

func (s *Server) readPicture(ctx context.Context, in *readIn, tell func(float64, string)) (Traced, error) {
	w, _ := s.writing(ctx)
	tell(0.01, "Opening the picture")
	p, err := picture.Decode(in.RawBody)
	if err != nil {
		return Traced{}, err
	}
	out := Traced{Pieces: []TracedOutline{}, Notes: append([]string{}, p.Notes...)}
	opts := []trace.Option{trace.Progress(func(share float64, what string) { tell(0.2+0.8*share, what) })}
	switch in.Ground {
	case "dark":
		opts = append(opts, trace.On(trace.DarkGround))
	case "light":
		opts = append(opts, trace.On(trace.LightGround))
	}
	var scale trace.Scale
	var sizes float64 // how sure sizes are, share
	axis := axes.Axes{X: 1, Y: 1}
	if in.As == "mat" {
		tell(0.08, "Looking for the marks of the mat")
		r, err := mat.Read(p)
		if err != nil {
			return Traced{}, err
		}
		lift, err := r.Raised(in.Thick)
		if err != nil {
			return Traced{}, err
		}
		scale = lift.Scale
		sizes = math.Hypot(2*r.Certain, lift.Share/2)
		out.W, out.H = r.Layout.Field.W(), r.Layout.Field.H()
		out.Sure = fmt.Sprintf("%d of %d marks seen; they lie within %s of where they were printed, so the scale is sure to %.2f %%. Tilted %.0f°, undone. %s", r.Marks, r.Of, w.Thin(max(0.01, r.Off)), max(0.01, 200*r.Certain), r.Tilt, liftSaid(lift, in.Thick, w))
	} else {
		dpi := p.Typed(in.DPI)
		if dpi == 0 {
			dpi = p.DPI
		}
		if dpi == 0 {
			return Traced{}, errNoDPI
		}
		if dpi < leastDPI {
			return Traced{}, tooCoarse(dpi)
		}
		ax, words, err := s.axesOf(ctx, in.Scanner, dpi)
		if err != nil {
			return Traced{}, err
		}
		scale = trace.DPI(dpi)
		axis = ax
		out.W, out.H, out.DPI = float64(p.W)*25.4/dpi*ax.X, float64(p.H)*25.4/dpi*ax.Y, dpi
		sizes = ax.Sure
		note, err := trace.Glass(out.W, out.H, dpi)
		if err != nil {
			return Traced{}, err
		}
		if note != "" {
			out.Notes = append(out.Notes, note)
		}
		from := "as typed"
		if in.DPI == 0 || dpi == p.DPI {
			from = "as the file says"
		}
		out.Sure = fmt.Sprintf("%.4g dots to the inch, %s: the sheet is %s × %s. %s", dpi, from, w.Length(out.W), w.Length(out.H), words)
	}
	switch in.As {
	case "stamps":
		opts = append(opts, trace.Prints())
	case "stencil":
		opts = append(opts, trace.Plate())
	}
	res, err := trace.Find(ctx, p, scale, opts...)
	if err != nil {
		return Traced{}, err
	}
	out.Notes = append(out.Notes, res.Notes...)
	var etched [][]shape.Point
	if in.As == "stencil" {
		etched = trace.Etched(p, out.DPI, res.Pieces[0].Region, res.Noise)
	}
	// All that was found is as the scanner drew it; what it stretches is taken off.
	for i := range res.Pieces {
		q := &res.Pieces[i]
		q.Region = axis.Region(q.Region)
		for k := range q.Doubt {
			q.Doubt[k] = axis.Line(q.Doubt[k])
		}
	}
	for i := range etched {
		etched[i] = axis.Line(etched[i])
	}
	switch in.As {
	case "stamps":
		for _, st := range trace.Steps(res.Pieces) {
			out.Pieces = append(out.Pieces, outlineOf(st.Region, st.Colour.Hex()))
		}
	case "stencil":
		open, err := trace.Openings(res.Pieces)
		if err != nil {
			return Traced{}, err
		}
		for _, g := range open {
			out.Pieces = append(out.Pieces, outlineOf(g, res.Pieces[0].Colour.Hex()))
		}
		if len(etched) > 0 {
			out.Lines = linePath(etched)
			out.Notes = append(out.Notes, "Lines etched into the plate were found; they are kept with the set as guides.")
		}
	default:
		for _, q := range res.Pieces {
			o := outlineOf(q.Region, q.Colour.Hex())
			o.Cut, o.Touches = q.Cut, q.Touches
			o.Sure, o.Size = q.Sure, math.Hypot(2*q.Sure, sizes*max(o.W, o.H))
			o.Said = saidOf(o, len(q.Doubt) > 0, w)
			var runs [][]shape.Point
			for _, r := range q.Doubt {
				runs = append(runs, r)
			}
			o.Doubt = linePath(runs)
			out.Pieces = append(out.Pieces, o)
		}
	}
	return out, nil
}

// leastDPI is the coarsest scan that is measured, dots to the inch.
const leastDPI = 50

func tooCoarse(dpi float64) error {
	return &picture.Problem{What: fmt.Sprintf("At %.4g dots to the inch nothing can be measured.", dpi), Mend: "Scan at 150 dpi or more."}
}

// axesOf are the axes of the scanner a picture came from, and what is to be said of them.
func (s *Server) axesOf(ctx context.Context, name string, dpi float64) (axes.Axes, string, error) {
	if name == "" {
		return axes.Nominal(dpi), fmt.Sprintf("The scanner was not measured: sizes are trusted to %.1f %%, and all that is said of them counts that in. Measure it once with a bank card.", 100*axes.Untold), nil
	}
	d, err := s.scanner(ctx, name)
	if err != nil {
		return axes.Axes{}, "", err
	}
	a := d.Axes
	said := fmt.Sprintf("Corrected for %s as measured on %s; sizes are sure to %.2f %%.", d.Name, d.On, 100*a.Sure)
	if math.Abs(dpi/a.DPI-1) > 0.01 {
		// The drive keeps its stretch at another resolution, mostly.
		a.Sure = math.Hypot(a.Sure, axes.Untold/2)
		said = fmt.Sprintf("Corrected for %s as measured on %s at %.4g dots to the inch; this is %.4g, so sizes are sure to %.2f %% only. Measure it at this one too.", d.Name, d.On, a.DPI, dpi, 100*a.Sure)
	}
	return a, said, nil
}

// liftSaid says what the thickness of card did to a photograph.
func liftSaid(l mat.Lift, thick float64, w measure.Writing) string {
	if thick == 0 {
		return "The thickness of the card is not counted: card of " + w.Thin(0.3) + " looks a thousandth too large, and lies a little too far out."
	}
	return fmt.Sprintf("Card %s thick under a camera about %s up looked %.2f %% too large; that is taken off. A piece at the rim may still lie %s out of place.", w.Thin(thick), w.Length(l.Up), 100*l.Share, w.Thin(max(0.01, l.Left)))
}

// saidOf says how sure an outline is, and with the scale's doubt its size.
func saidOf(o TracedOutline, doubt bool, w measure.Writing) string {
	if o.Sure == 0 {
		return ""
	}
	said := fmt.Sprintf("± %s, its length to ± %s", w.Thin(o.Sure), w.Thin(o.Size))
	if doubt {
		said += ", in doubt where the line is broken"
	}
	return said
}

// linePath writes lines as path data.
func linePath(lines [][]shape.Point) string {
	var b strings.Builder
	for _, l := range lines {
		for i, p := range l {
			fmt.Fprintf(&b, "%c%.2f %.2f", "ML"[min(i, 1)], p.X, p.Y)
		}
	}
	return b.String()
}
