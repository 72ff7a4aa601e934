package server

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"net/http"
	"regexp"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/core/register"
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
		scale = ax.Scale(dpi)
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
		if lines := trace.Etched(p, out.DPI, res.Pieces[0].Region, res.Noise); len(lines) > 0 {
			out.Lines = linePath(lines)
			out.Notes = append(out.Notes, "Lines etched into the plate were found; they are kept with the set as guides.")
		}
	default:
		for _, q := range res.Pieces {
			o := outlineOf(q.Region, q.Colour.Hex())
			o.Cut, o.Touches = q.Cut, q.Touches
			o.Sure, o.Said = q.Sure, saidOf(q, w)
			o.Size = math.Hypot(2*q.Sure, sizes*max(o.W, o.H))
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

// saidOf says how sure an outline is.
func saidOf(q trace.Piece, w measure.Writing) string {
	if q.Sure == 0 {
		return ""
	}
	if len(q.Doubt) == 0 {
		return "± " + w.Thin(q.Sure)
	}
	return fmt.Sprintf("± %s, in doubt where the line is broken", w.Thin(q.Sure))
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

type stackIn struct {
	Body struct {
		Pieces []shape.Region `json:"pieces" minItems:"1" maxItems:"120" doc:"path data in mm"`
		Stamps bool           `json:"stamps,omitempty" doc:"prints: they keep the turn they were stamped in"`
	}
}

// Seat is where one piece goes.
type Seat struct {
	Piece int     `json:"piece" doc:"index of the piece sent"`
	Turn  float64 `json:"turn" doc:"clockwise about the origin, degrees"`
	X     float64 `json:"x" doc:"move after turning, mm"`
	Y     float64 `json:"y" doc:"mm"`
	Host  int     `json:"host" doc:"index of the piece it sits on; -1 for none"`
	Fit   kit.Fit `json:"fit" enum:"free,within,even rim,fills,offset"`
	Layer int     `json:"layer" doc:"twins share one, lowest 0"`
	Sure  float64 `json:"sure" doc:"0 to 1"`
	Why   string  `json:"why"`
}

// Stacked is a proposal, lowest first.
type Stacked struct {
	Seats []Seat `json:"seats" nullable:"false"`
}

func (s *Server) stackPieces(ctx context.Context, in *stackIn, tell func(float64, string)) (Stacked, error) {
	w, _ := s.writing(ctx)
	opts := []assemble.Option{assemble.Writing(w), assemble.Progress(func(share float64) { tell(share, "Trying which piece goes where") })}
	if in.Body.Stamps {
		opts = append(opts, assemble.Upright())
	}
	for i, g := range in.Body.Pieces {
		if g.Empty() {
			return Stacked{}, &picture.Problem{What: fmt.Sprintf("Outline %d is empty.", i+1), Mend: "Leave it out."}
		}
	}
	placed, err := assemble.Pieces(ctx, in.Body.Pieces, opts...)
	if err != nil {
		return Stacked{}, err
	}
	out := Stacked{Seats: []Seat{}}
	for _, p := range placed {
		s := Seat{Piece: p.Piece, Turn: p.Motion.Turn, X: p.Motion.Move.X, Y: p.Motion.Move.Y, Host: -1, Fit: p.Fit, Layer: p.Layer, Sure: p.Sure, Why: p.Why}
		if p.Host >= 0 {
			s.Host = placed[p.Host].Piece
		}
		out.Seats = append(out.Seats, s)
	}
	return out, nil
}

type splitIn struct {
	Body struct {
		Outline shape.Region `json:"outline"`
		Colour  string       `json:"colour"`
		AX      float64      `json:"ax" minimum:"-10000" maximum:"10000" doc:"mm"`
		AY      float64      `json:"ay" minimum:"-10000" maximum:"10000"`
		BX      float64      `json:"bx" minimum:"-10000" maximum:"10000"`
		BY      float64      `json:"by" minimum:"-10000" maximum:"10000"`
	}
}

type splitOut struct{ Body []TracedOutline }

// KeptPiece is a piece as it goes into a set.
type KeptPiece struct {
	Outline shape.Region `json:"outline" doc:"as traced, path data in mm"`
	Turn    float64      `json:"turn" doc:"clockwise about the origin, degrees"`
	X       float64      `json:"x" doc:"move after turning, mm"`
	Y       float64      `json:"y"`
	Sure    float64      `json:"sure,omitempty" minimum:"0" maximum:"20" doc:"how sure its outline is, mm"`
	Mirror  bool         `json:"mirror,omitempty" doc:"mirrored left to right about the piece's middle before turning"`
}

// KeptLayer is one part of the set.
type KeptLayer struct {
	Label  string      `json:"label" minLength:"1" maxLength:"60"`
	Pieces []KeptPiece `json:"pieces" minItems:"1"`
	Fit    kit.Fit     `json:"fit" enum:"free,within,even rim,fills,offset"`
	Host   int         `json:"host" doc:"index of the layer it sits on; -1 for none"`
	Copies int         `json:"copies,omitempty" minimum:"0" maximum:"99"`
	Colour string      `json:"colour,omitempty"`
}

type keepIn struct {
	Body struct {
		Name   string      `json:"name" minLength:"1" maxLength:"80"`
		Kind   kit.SetKind `json:"kind" enum:"die,stamp,stencil,word"`
		Where  string      `json:"where,omitempty" maxLength:"120"`
		Tags   []string    `json:"tags,omitempty"`
		Lines  string      `json:"lines,omitempty" doc:"etched lines of a stencil, kept with its first part: path data in the frame of the layers, mm"`
		Layers []KeptLayer `json:"layers" minItems:"1" maxItems:"200" doc:"lowest first"`
	}
}

type snapIn struct {
	Body struct {
		Piece   KeptPiece   `json:"piece"`
		Beneath []KeptPiece `json:"beneath" maxItems:"200" doc:"lowest first"`
	}
}

// Snapped is where a piece was drawn to.
type Snapped struct {
	Found bool    `json:"found" doc:"false: nothing near to go by, the rest is as it was sent"`
	Turn  float64 `json:"turn" doc:"clockwise about the origin, degrees"`
	X     float64 `json:"x" doc:"move after turning, mm"`
	Y     float64 `json:"y" doc:"mm"`
	Why   string  `json:"why"`
}

type snapOut struct{ Body Snapped }

func (s *Server) snapPiece(ctx context.Context, in *snapIn) (*snapOut, error) {
	piece, err := place([]KeptPiece{in.Body.Piece})
	if err != nil {
		return nil, problem(fmt.Errorf("snap the piece: %w", err))
	}
	if piece.Empty() {
		return nil, problem(kit.Problem{Path: "piece", What: "the outline is empty"})
	}
	beneath := make([]shape.Region, len(in.Body.Beneath))
	for i, b := range in.Body.Beneath {
		if beneath[i], err = place([]KeptPiece{b}); err != nil {
			return nil, problem(fmt.Errorf("snap the piece: %w", err))
		}
	}
	was := register.Motion{Turn: in.Body.Piece.Turn, Move: shape.Point{X: in.Body.Piece.X, Y: in.Body.Piece.Y}}
	w, _ := s.writing(ctx)
	m, why, ok := assemble.Snap(piece, beneath, assemble.Writing(w))
	if !ok {
		return &snapOut{Snapped{Turn: was.Turn, X: was.Move.X, Y: was.Move.Y, Why: "no edge, hole or axis near enough to go by"}}, nil
	}
	m = m.After(was)
	return &snapOut{Snapped{true, m.Turn, m.Move.X, m.Move.Y, why}}, nil
}

func (s *Server) keepStack(ctx context.Context, in *keepIn) (*setOut, error) {
	set := kit.Set{Name: strings.TrimSpace(in.Body.Name), Kind: in.Body.Kind, Where: in.Body.Where, Tags: in.Body.Tags}
	hosts := make([]int, len(in.Body.Layers))
	for i, l := range in.Body.Layers {
		g, err := place(l.Pieces)
		if err != nil {
			return nil, problem(fmt.Errorf("put layer %q together: %w", l.Label, err))
		}
		hosts[i] = l.Host
		part := kit.Part{Label: l.Label, Outline: g, Copies: max(1, l.Copies), Fit: l.Fit, Colour: l.Colour}
		for _, p := range l.Pieces {
			part.Sure = max(part.Sure, p.Sure)
		}
		set.Parts = append(set.Parts, part)
	}
	set.Parts = kit.Stacked(set.Parts, hosts)
	if in.Body.Lines != "" {
		if !linesOnly.MatchString(in.Body.Lines) {
			return nil, problem(kit.Problem{Path: "lines", What: "lines are path data of M and L with numbers of mm"})
		}
		set.Parts[0].Lines = in.Body.Lines
	}
	return s.putSet(ctx, set)
}

// linesOnly is path data of straight lines.
var linesOnly = regexp.MustCompile(`^(M-?\d+(\.\d+)? -?\d+(\.\d+)?(L-?\d+(\.\d+)? -?\d+(\.\d+)?)+)+$`)

// place puts the pieces of a layer where they go and unites them.
func place(pieces []KeptPiece) (shape.Region, error) {
	var out shape.Region
	for _, p := range pieces {
		g := p.Outline
		if p.Mirror {
			g = g.Mirror(g.Centroid().X)
		}
		g = register.Motion{Turn: p.Turn, Move: shape.Point{X: p.X, Y: p.Y}}.Of(g)
		var err error
		if out, err = out.Union(g); err != nil {
			return out, err
		}
	}
	return out, nil
}
