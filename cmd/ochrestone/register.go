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
)

// proofReport is what register writes as JSON. Shifts are in mm, turns in degrees
// clockwise, against the first layer.
type proofReport struct {
	Picture string        `json:"picture"`
	DPI     float64       `json:"dpi"`
	Askew   float64       `json:"sheetAskewDegrees"`
	Miss    float64       `json:"unexplained"`
	Against string        `json:"against"`
	Notes   []string      `json:"notes"`
	Layers  []layerReport `json:"layers"`
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

// runRegister measures a proof against a drawn set and the colours its inks dry
// to.
func runRegister(args []string) error {
	f := flag.NewFlagSet("ochrestone register", flag.ContinueOnError)
	set := f.String("set", "", "the set as SVG, lowest layer first")
	inks := f.String("colours", "", "what the ink of each layer dries to on the paper, lowest first: #rrggbb,#rrggbb,…")
	print := f.String("print", "", "the scan of the proof")
	dpi := f.Float64("dpi", 0, "dots to the inch; what the file says when left out")
	paper := f.String("paper", kit.PlainWhite, "colour of the paper, #rrggbb")
	out := f.String("json", "-", "write the report to this JSON file; - for standard output")
	if err := f.Parse(args); err != nil {
		return err
	}
	if *set == "" || *print == "" {
		return errors.New("name a set and a print: ochrestone register --set SET.svg --print PROOF.png --dpi 300 --colours #eec4bd,#d8867b")
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	under, err := colour.ParseHex(*paper)
	if err != nil {
		return fmt.Errorf("--paper: %w", err)
	}
	layers, err := printsOf(*set, strings.Split(*inks, ","), under)
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
	if *dpi == 0 {
		*dpi = pic.DPI
	}
	if *dpi < 100 {
		return &picture.Problem{What: "The file does not say at how many dots to the inch it was scanned, or too few.", Mend: "Give --dpi; 200 or more."}
	}
	got, err := proof.Measure(ctx, pic, *dpi, under, layers)
	if err != nil {
		return err
	}
	r := proofReport{Picture: filepath.Base(*print), DPI: *dpi, Askew: got.Sheet.Turn, Miss: got.Miss, Against: layers[0].Label, Notes: append(append([]string{}, pic.Notes...), got.Notes...)}
	lost := false
	for i, l := range layers[1:] {
		o := got.Layers[i+1]
		lost = lost || o.Lost
		r.Layers = append(r.Layers, layerReport{l.Label, !o.Lost, o.Shift.X, o.Shift.Y, o.Turn, o.SureShift, o.SureTurn})
	}
	b, err := json.MarshalIndent(r, "", "  ")
	if err != nil {
		return fmt.Errorf("write the report: %w", err)
	}
	b = append(b, '\n')
	if *out == "-" {
		_, err = os.Stdout.Write(b)
	} else {
		err = os.WriteFile(*out, b, 0o644)
	}
	if err != nil {
		return fmt.Errorf("write the report: %w", err)
	}
	if lost {
		return errSpoils
	}
	return nil
}

// printsOf reads the layers of a drawn set with their colours.
func printsOf(name string, inks []string, paper colour.Linear) ([]proof.Layer, error) {
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
	if len(inks) != len(s.Parts) {
		return nil, fmt.Errorf("the set has %d layers, --colours gives %d: name the colour each ink dries to, lowest layer first", len(s.Parts), len(inks))
	}
	var out []proof.Layer
	for i, p := range s.Parts {
		c, err := colour.ParseHex(strings.TrimSpace(inks[i]))
		if err != nil {
			return nil, fmt.Errorf("--colours, for %s: %w", p.Label, err)
		}
		out = append(out, proof.Layer{Label: p.Label, Region: p.Outline, Film: colour.FilmFrom(c, paper, kit.HabitOf(kit.Dye).Hide), Strikes: 1})
	}
	return out, nil
}
