package main

import (
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"math"
	"os"
	"os/signal"
	"path/filepath"
	"strings"

	"ochrestone/core/assemble"
	"ochrestone/core/kit"
	"ochrestone/core/shape"
	"ochrestone/exchange/setsvg"
	"ochrestone/vision/mat"
	"ochrestone/vision/picture"
	"ochrestone/vision/trace"
)

// errSpoils ends the program with 1: the work was done, and something in it
// would spoil what comes after.
var errSpoils = errors.New("see the notes")

// report is what trace writes as JSON.
type report struct {
	Picture string        `json:"picture"`
	DPI     float64       `json:"dpi,omitempty"`
	Mat     *matReport    `json:"mat,omitempty"`
	Notes   []string      `json:"notes"`
	Pieces  []pieceReport `json:"pieces"`

	look bool // a person must look at it
}

type matReport struct {
	Marks    int     `json:"marks"`
	Of       int     `json:"of"`
	Tilt     float64 `json:"tiltDegrees"`
	Off      float64 `json:"offMM"`
	PerMM    float64 `json:"pixelsPerMM"`
	ScaleErr float64 `json:"scaleStandardError"`
}

type pieceReport struct {
	Label   string  `json:"label"`
	Area    float64 `json:"areaMM2"`
	W       float64 `json:"widthMM"`
	H       float64 `json:"heightMM"`
	Colour  string  `json:"colour"`
	Holes   int     `json:"holes"`
	Cut     bool    `json:"cutOff,omitempty"`
	Touches bool    `json:"mayBeTwo,omitempty"`
}

// tracing is the command line of trace.
type tracing struct {
	dpi                 float64
	light, dark, mat    bool
	stamps, stencil     bool
	stack               bool
	svg, json, pictured string
}

func runTrace(args []string) error {
	var t tracing
	f := flag.NewFlagSet("ochrestone trace", flag.ContinueOnError)
	f.Float64Var(&t.dpi, "dpi", 0, "dots to the inch; what the file says when left out")
	f.BoolVar(&t.light, "light-on-dark", false, "light pieces on a dark sheet")
	f.BoolVar(&t.dark, "dark-on-light", false, "dark pieces on a light sheet")
	f.BoolVar(&t.mat, "mat", false, "a photograph on the measuring mat")
	f.BoolVar(&t.stamps, "stamps", false, "steps of a layering stamp printed apart")
	f.BoolVar(&t.stencil, "stencil", false, "a stencil")
	f.BoolVar(&t.stack, "stack", false, "propose how the pieces stack")
	f.StringVar(&t.svg, "o", "", "write the outlines to this SVG file")
	f.StringVar(&t.json, "json", "", "write a report to this JSON file; - for standard output")
	// Flags may stand before or after the picture.
	var rest []string
	for len(args) > 0 {
		if err := f.Parse(args); err != nil {
			return err
		}
		if args = f.Args(); len(args) > 0 {
			rest, args = append(rest, args[0]), args[1:]
		}
	}
	if len(rest) != 1 {
		return errors.New("name one picture: ochrestone trace PICTURE --dpi 300 -o SET.svg")
	}
	t.pictured = rest[0]
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	return t.run(ctx)
}

func (t tracing) run(ctx context.Context) error {
	raw, err := os.ReadFile(t.pictured)
	if err != nil {
		return fmt.Errorf("read the picture: %w", err)
	}
	p, err := picture.Decode(raw)
	if err != nil {
		return err
	}
	r := report{Picture: filepath.Base(t.pictured), Notes: append([]string{}, p.Notes...), Pieces: []pieceReport{}}
	scale, err := t.scale(p, &r)
	if err != nil {
		return err
	}
	var opts []trace.Option
	switch {
	case t.light:
		opts = append(opts, trace.On(trace.DarkGround))
	case t.dark:
		opts = append(opts, trace.On(trace.LightGround))
	}
	if t.stamps {
		opts = append(opts, trace.Prints())
	}
	if t.stencil {
		opts = append(opts, trace.Plate())
	}
	res, err := trace.Find(ctx, p, scale, opts...)
	if err != nil {
		return err
	}
	r.Notes = append(r.Notes, res.Notes...)
	set, err := t.set(ctx, res, &r)
	if err != nil {
		return err
	}
	return t.write(set, r, r.look || len(res.Notes) > 0)
}

func (t tracing) scale(p *picture.Picture, r *report) (trace.Scale, error) {
	if t.mat {
		m, err := mat.Read(p)
		r.Mat = &matReport{m.Marks, m.Of, m.Tilt, m.Off, m.PerMM, m.Certain}
		return m.Scale, err
	}
	if r.DPI = p.Typed(t.dpi); r.DPI == 0 {
		r.DPI = p.DPI
	}
	if r.DPI < 50 {
		return trace.Scale{}, errors.New("the file does not say at how many dots to the inch it was scanned; add --dpi 300, or what it was; for a photograph on the measuring mat add --mat")
	}
	note, err := trace.Glass(float64(p.W)*25.4/r.DPI, float64(p.H)*25.4/r.DPI, r.DPI)
	if note != "" {
		r.Notes = append(r.Notes, note)
		r.look = true
	}
	return trace.DPI(r.DPI), err
}

// set names what was found and, if asked, stacks it.
func (t tracing) set(ctx context.Context, res trace.Result, r *report) (kit.Set, error) {
	set := kit.Set{Name: strings.TrimSuffix(r.Picture, filepath.Ext(r.Picture)), Kind: kit.DieSet}
	add := func(label string, g shape.Region, q pieceReport) {
		b := g.Bounds()
		q.Label, q.Area, q.W, q.H, q.Holes = label, round(g.Area()), round(b.W()), round(b.H()), holes(g)
		r.Pieces = append(r.Pieces, q)
		set.Parts = append(set.Parts, kit.Part{ID: fmt.Sprintf("p%d", len(set.Parts)+1), Label: label, Outline: g, Copies: 1, Rank: 1})
	}
	switch {
	case t.stamps:
		for i, s := range trace.Steps(res.Pieces) {
			add(fmt.Sprintf("Step %d", i+1), s.Region, pieceReport{Colour: s.Colour.Hex()})
		}
	case t.stencil:
		open, err := trace.Openings(res.Pieces)
		if err != nil {
			return set, err
		}
		for i, g := range open {
			add(fmt.Sprintf("Opening %d", i+1), g, pieceReport{})
		}
	default:
		for i, p := range res.Pieces {
			add(fmt.Sprintf("Piece %d", i+1), p.Region, pieceReport{Colour: p.Colour.Hex(), Cut: p.Cut, Touches: p.Touches})
		}
	}
	if !t.stack {
		return set, nil
	}
	var gs []shape.Region
	for _, p := range set.Parts {
		gs = append(gs, p.Outline)
	}
	placed, err := assemble.Pieces(ctx, gs)
	if err != nil {
		return set, err
	}
	parts := make([]kit.Part, len(placed))
	for i, p := range placed {
		parts[i] = set.Parts[p.Piece]
		parts[i].Outline = p.Outline
		r.Notes = append(r.Notes, fmt.Sprintf("%s: %s (%.0f %% sure).", parts[i].Label, p.Why, 100*p.Sure))
	}
	set.Parts = parts
	return set, nil
}

func (t tracing) write(set kit.Set, r report, spoils bool) error {
	if t.svg != "" {
		f, err := os.Create(t.svg)
		if err != nil {
			return fmt.Errorf("write the outlines: %w", err)
		}
		if err := errors.Join(setsvg.Write(f, set), f.Close()); err != nil {
			return err
		}
	}
	if t.json != "" {
		b, err := json.MarshalIndent(r, "", "  ")
		if err != nil {
			return fmt.Errorf("write the report: %w", err)
		}
		b = append(b, '\n')
		if t.json == "-" {
			_, err = os.Stdout.Write(b)
		} else {
			err = os.WriteFile(t.json, b, 0o644)
		}
		if err != nil {
			return fmt.Errorf("write the report: %w", err)
		}
	} else {
		fmt.Printf("%d found in %s\n", len(r.Pieces), r.Picture)
		for _, n := range r.Notes {
			fmt.Println(n)
		}
	}
	if spoils {
		return errSpoils
	}
	return nil
}

func round(v float64) float64 { return math.Round(v*1000) / 1000 }

func holes(g shape.Region) int {
	n := 0
	for _, r := range g.Rings() {
		if r.Area() < 0 {
			n++
		}
	}
	return n
}
