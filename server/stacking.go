package server

import (
	"bytes"
	"context"
	"encoding/base64"
	"fmt"
	"image/jpeg"
	"regexp"
	"strings"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/register"
	"ochrestone/core/shape"
	"ochrestone/vision/finished"
	"ochrestone/vision/picture"
)

type stackIn struct {
	Body struct {
		Pieces []shape.Region `json:"pieces" minItems:"1" maxItems:"120" doc:"path data in mm"`
		Stamps bool           `json:"stamps,omitempty" doc:"prints: they keep the turn they were stamped in"`
		// What a pack's cover or a card already made shows.
		Picture []byte `json:"picture,omitempty" doc:"picture of the finished image, PNG, JPEG or TIFF: the pieces go where it shows them"`
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
	Shown string  `json:"shown,omitempty" doc:"colour the picture of the finished image shows it in, #rrggbb"`
}

// Stacked is a proposal, lowest first.
type Stacked struct {
	Seats []Seat `json:"seats" nullable:"false"`
	Shown *Shown `json:"shown,omitempty" doc:"when a picture was sent"`
}

// Shown is the picture of the finished image as seen from straight above, and how it lies
// under the seats.
type Shown struct {
	Picture string  `json:"picture" doc:"data address"`
	Left    float64 `json:"left" doc:"mm"`
	Top     float64 `json:"top" doc:"mm"`
	W       float64 `json:"w" doc:"mm"`
	H       float64 `json:"h" doc:"mm"`
	Turn    float64 `json:"turn" doc:"clockwise about the origin, degrees"`
	X       float64 `json:"x" doc:"move after turning, mm"`
	Y       float64 `json:"y" doc:"mm"`
	Fit     float64 `json:"fit" doc:"mean distance between the edge that stands out in the picture and that of its piece, mm"`
	Found   int     `json:"found" doc:"pieces made out in it"`
}

func (s *Server) stackPieces(ctx context.Context, in *stackIn, tell func(float64, string)) (Stacked, error) {
	for i, g := range in.Body.Pieces {
		if g.Empty() {
			return Stacked{}, &picture.Problem{What: fmt.Sprintf("Outline %d is empty.", i+1), Mend: "Leave it out."}
		}
	}
	w, _ := s.writing(ctx)
	from := 0.0 // of the work, before the pieces are put together
	opts := []assemble.Option{assemble.Writing(w), assemble.Progress(func(share float64) { tell(from+(1-from)*share, "Trying which piece goes where") })}
	if in.Body.Stamps {
		opts = append(opts, assemble.Upright())
	}
	out := Stacked{Seats: []Seat{}}
	colours := map[int]string{}
	if len(in.Body.Picture) > 0 {
		from = 0.6
		seen, err := readFinished(ctx, in.Body.Picture, in.Body.Pieces, func(share float64) { tell(from*share, "Looking for the pieces in the picture") })
		if err != nil {
			return Stacked{}, err
		}
		var sights []assemble.Sight
		for _, v := range seen.Seen {
			sights = append(sights, assemble.Sight{Piece: v.Piece, At: v.At, Sure: v.Sure})
			if v.Shown > 0 && v.Sure >= 0.4 {
				colours[v.Piece] = v.Colour.Hex()
			}
		}
		opts = append(opts, assemble.Shown(sights, seen.Turn))
		if out.Shown, err = showFlat(seen); err != nil {
			return Stacked{}, err
		}
		out.Shown.Found = len(colours)
	}
	placed, err := assemble.Pieces(ctx, in.Body.Pieces, opts...)
	if err != nil {
		return Stacked{}, err
	}
	if out.Shown != nil {
		m := placed[0].Motion.After(register.Motion{Turn: out.Shown.Turn, Move: shape.Point{X: out.Shown.X, Y: out.Shown.Y}})
		out.Shown.Turn, out.Shown.X, out.Shown.Y = m.Turn, m.Move.X, m.Move.Y
	}
	for _, p := range placed {
		s := Seat{Piece: p.Piece, Turn: p.Motion.Turn, X: p.Motion.Move.X, Y: p.Motion.Move.Y, Host: -1, Fit: p.Fit, Layer: p.Layer, Sure: p.Sure, Why: p.Why, Shown: colours[p.Piece]}
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
		Tap     *tapSpot    `json:"tap,omitempty" doc:"where its middle goes, about: it is turned as it must be"`
		Twin    *KeptPiece  `json:"twin,omitempty" doc:"its mirror twin: it goes across the axis of the lowest piece beneath from there"`
	}
}

type tapSpot struct {
	X float64 `json:"x" minimum:"-10000" maximum:"10000" doc:"mm"`
	Y float64 `json:"y" minimum:"-10000" maximum:"10000" doc:"mm"`
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
	if in.Body.Twin != nil {
		twin, err := place([]KeptPiece{*in.Body.Twin})
		if err != nil {
			return nil, problem(fmt.Errorf("snap the piece: %w", err))
		}
		if len(beneath) > 0 {
			if m, ok := assemble.Across(piece, twin, beneath[0]); ok {
				m = m.After(was)
				return &snapOut{Snapped{true, m.Turn, m.Move.X, m.Move.Y, "across the axis from its mirror twin"}}, nil
			}
		}
		return &snapOut{Snapped{Turn: was.Turn, X: was.Move.X, Y: was.Move.Y, Why: "it is no mirror twin of that piece, or the base has no axis"}}, nil
	}
	if at := in.Body.Tap; at != nil {
		m, why, ok := assemble.Tap(piece, shape.Point{X: at.X, Y: at.Y}, beneath, assemble.Writing(w))
		if !ok {
			why = "put where you tapped; it follows nothing there"
		}
		m = m.After(was)
		return &snapOut{Snapped{true, m.Turn, m.Move.X, m.Move.Y, why}}, nil
	}
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

func readFinished(ctx context.Context, data []byte, pieces []shape.Region, tell func(float64)) (finished.Result, error) {
	p, err := picture.Decode(data)
	if err != nil {
		return finished.Result{}, err
	}
	return finished.Read(ctx, p, pieces, finished.Progress(tell))
}

// showFlat is the picture from above in the frame of the largest piece.
func showFlat(r finished.Result) (*Shown, error) {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, r.Flat.Image(), &jpeg.Options{Quality: 85}); err != nil {
		return nil, fmt.Errorf("show the picture from above: %w", err)
	}
	return &Shown{
		Picture: "data:image/jpeg;base64," + base64.StdEncoding.EncodeToString(b.Bytes()),
		Left:    r.Corner.X - finished.Step/2, Top: r.Corner.Y - finished.Step/2, W: float64(r.Flat.W) * finished.Step, H: float64(r.Flat.H) * finished.Step,
		Turn: r.Frame.Turn, X: r.Frame.Move.X, Y: r.Frame.Move.Y, Fit: r.Fit,
	}, nil
}
