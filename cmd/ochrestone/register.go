package main

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"slices"
	"strings"

	"ochrestone/core/colour"
	"ochrestone/core/kit"
	"ochrestone/exchange/svgin"
	"ochrestone/vision/picture"
	"ochrestone/vision/proof"
	"ochrestone/vision/trace"
)

// proofReport is what register writes as JSON. Shifts are in mm, turns in degrees
// clockwise, against the first layer.
type proofReport struct {
	Picture string        `json:"picture"`
	DPI     float64       `json:"dpi,omitempty"`
	Against string        `json:"against"`
	Notes   []string      `json:"notes"`
	Prints  []printReport `json:"prints"`
}

type printReport struct {
	Askew  float64       `json:"askewDegrees"`
	Scale  float64       `json:"scale"`
	Miss   float64       `json:"unexplained"`
	Wrong  string        `json:"wrong,omitempty"`
	Notes  []string      `json:"notes"`
	Layers []layerReport `json:"layers"`
}

type layerReport struct {
	Label     string  `json:"label"`
	Found     bool    `json:"found"`
	Right     float64 `json:"rightMM"`
	Down      float64 `json:"downMM"`
	Turn      float64 `json:"clockwiseDegrees"`
	SureShift float64 `json:"standardErrorMM"`
	SureTurn  float64 `json:"standardErrorDegrees"`
}

// runRegister measures proofs against a drawn set, with the colours its inks dry
// to or by its outlines alone.
func runRegister(args []string) error {
	f := flag.NewFlagSet("ochrestone register", flag.ContinueOnError)
	set := f.String("set", "", "the set as SVG, lowest layer first")
	inks := f.String("colours", "", "what the ink of each layer dries to on the paper, lowest first: #rrggbb,#rrggbb,…; learned from the print when left out")
	print := f.String("print", "", "the picture of the proof, or of several")
	dpi := f.Float64("dpi", 0, "dots to the inch; what the file says when left out")
	onMat := f.Bool("mat", false, "the picture is a photograph on the measuring mat")
	paper := f.String("paper", kit.PlainWhite, "colour of the paper, #rrggbb")
	asJSON := f.Bool("json", false, "write JSON instead of sentences")
	if err := f.Parse(args); err != nil {
		return err
	}
	if *set == "" || *print == "" {
		return errors.New("name a set and a print: ochrestone register --set SET.svg --print PROOF.png --dpi 300 --json")
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	under, err := colour.ParseHex(*paper)
	if err != nil {
		return fmt.Errorf("--paper: %w", err)
	}
	layers, err := printsOf(*set, *inks, under)
	if err != nil {
		return err
	}
	raw, err := os.ReadFile(*print)
	if err != nil {
		return fmt.Errorf("read the print: %w", err)
	}
	pic, err := picture.Decode(raw)
	if err != nil {
		return err
	}
	if *dpi = pic.Typed(*dpi); *dpi == 0 {
		*dpi = pic.DPI
	}
	plane, err := planeOf(pic, *dpi, *onMat)
	if err != nil {
		return err
	}
	var opts []proof.Option
	if *inks == "" {
		opts = append(opts, proof.UnknownInks())
	}
	got, err := proof.Measure(ctx, plane, under, layers, opts...)
	if err != nil {
		return err
	}
	r, lost := reportOf(got, layers)
	r.Picture, r.DPI, r.Notes = filepath.Base(*print), *dpi, append(append([]string{}, pic.Notes...), got.Notes...)
	if *asJSON {
		e := json.NewEncoder(os.Stdout)
		e.SetIndent("", "  ")
		err = e.Encode(r)
	} else {
		_, err = fmt.Print(r.words())
	}
	if err != nil {
		return fmt.Errorf("write the report: %w", err)
	}
	if lost {
		return errSpoils
	}
	return nil
}

func planeOf(pic *picture.Picture, dpi float64, onMat bool) (*proof.Plane, error) {
	switch {
	case onMat:
		return proof.OnMat(pic)
	case dpi == 0:
		return nil, &picture.Problem{What: "The file does not say at how many dots to the inch it was scanned.", Mend: "Give --dpi; 200 or more."}
	}
	if _, err := trace.Glass(float64(pic.W)*25.4/dpi, float64(pic.H)*25.4/dpi, dpi); err != nil {
		return nil, err
	}
	return proof.Scan(pic, dpi)
}

func reportOf(got proof.Sheet, layers []proof.Layer) (r proofReport, lost bool) {
	r.Against = layers[0].Label
	for _, p := range got.Prints {
		pr := printReport{Askew: p.Sheet.Turn, Scale: p.Scale, Miss: p.Miss, Notes: append([]string{}, p.Notes...), Layers: []layerReport{}}
		if p.Err != nil {
			pr.Wrong, lost = p.Err.Error(), true
			r.Prints = append(r.Prints, pr)
			continue
		}
		for i, l := range layers[1:] {
			o := p.Layers[i+1]
			lost = lost || o.Lost
			pr.Layers = append(pr.Layers, layerReport{l.Label, !o.Lost, o.Shift.X, o.Shift.Y, o.Turn, o.SureShift, o.SureTurn})
		}
		r.Prints = append(r.Prints, pr)
	}
	return r, lost
}

// words says the report in sentences, each error with twice its standard error.
func (r proofReport) words() string {
	var b strings.Builder
	for i, p := range r.Prints {
		if len(r.Prints) > 1 {
			fmt.Fprintf(&b, "Print %d\n", i+1)
		}
		if p.Wrong != "" {
			fmt.Fprintln(&b, p.Wrong)
		}
		for _, l := range p.Layers {
			if !l.Found {
				fmt.Fprintf(&b, "%s could not be made out.\n", l.Label)
				continue
			}
			fmt.Fprintf(&b, "%s: %+.2f mm right, %+.2f mm down (±%.2f mm), turned %+.2f° clockwise (±%.2f°), against %s.\n", l.Label, l.Right, l.Down, 2*l.SureShift, l.Turn, 2*l.SureTurn, r.Against)
		}
		for _, n := range p.Notes {
			fmt.Fprintln(&b, n)
		}
	}
	for _, n := range r.Notes {
		fmt.Fprintln(&b, n)
	}
	return b.String()
}

// printsOf reads the layers of a drawn set with their colours, if they are given.
func printsOf(name, inks string, paper colour.Linear) ([]proof.Layer, error) {
	raw, err := os.ReadFile(name)
	if err != nil {
		return nil, fmt.Errorf("read the set: %w", err)
	}
	s, err := svgin.Read(raw)
	if err != nil {
		return nil, fmt.Errorf("read the set: %w", err)
	}
	// As they stand in the file, not as a stack would be proposed: parts are
	// numbered p1, p2 and so on as they are read.
	slices.SortFunc(s.Parts, func(a, b kit.Part) int {
		return cmp.Or(cmp.Compare(len(a.ID), len(b.ID)), cmp.Compare(a.ID, b.ID))
	})
	given := strings.Split(inks, ",")
	if inks != "" && len(given) != len(s.Parts) {
		return nil, fmt.Errorf("the set has %d layers, --colours gives %d: name the colour each ink dries to, lowest layer first", len(s.Parts), len(given))
	}
	var out []proof.Layer
	for i, p := range s.Parts {
		if inks == "" {
			out = append(out, proof.Layer{Label: p.Label, Region: p.Outline, Strikes: 1})
			continue
		}
		c, err := colour.ParseHex(strings.TrimSpace(given[i]))
		if err != nil {
			return nil, fmt.Errorf("--colours, for %s: %w", p.Label, err)
		}
		out = append(out, proof.Layer{Label: p.Label, Region: p.Outline, Film: colour.FilmFrom(c, paper, kit.BehaviourOf(kit.Dye).Hide), Strikes: 1})
	}
	return out, nil
}
