package server

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"ochrestone/core/kit"
	"ochrestone/core/measure"
	"ochrestone/vision/axes"
	"ochrestone/vision/picture"
)

// Scanner is a device whose axes were measured once.
type Scanner struct {
	Name string    `json:"name" minLength:"1" maxLength:"60"`
	From string    `json:"from" enum:"card,mat" doc:"what it was measured by"`
	On   string    `json:"on" doc:"day, RFC 3339"`
	Axes axes.Axes `json:"axes"`
	Said string    `json:"said" doc:"what was found, in words"`
}

type scannersOut struct{ Body []Scanner }

type measureIn struct {
	Name     string  `query:"name" minLength:"1" maxLength:"60" required:"true"`
	From     string  `query:"from" enum:"card,mat" default:"card"`
	DPI      float64 `query:"dpi" minimum:"0" maximum:"4800" doc:"dots to the inch; 0 takes what the file says"`
	Measured float64 `query:"measured" minimum:"0" maximum:"400" doc:"of the mat: between the middles of the two upper corner marks by a ruler, mm"`
	RawBody  []byte  `contentType:"application/octet-stream"`
}

type scannerName struct {
	Name string `path:"name" maxLength:"60"`
}

// scannersKey is the setting that holds the measured scanners.
const scannersKey = "scanners"

func (s *Server) scanners() {
	huma.Register(s.api, op("list-scanners", http.MethodGet, "/api/scanners", "Scanners that were measured"), func(ctx context.Context, _ *struct{}) (*scannersOut, error) {
		all, err := s.measuredScanners(ctx)
		if err != nil {
			return nil, problem(err)
		}
		return &scannersOut{all}, nil
	})
	take := op("measure-scanner", http.MethodPost, "/api/scanners", "Measure a scanner by a card or the mat scanned on it")
	take.MaxBodyBytes = maxUpload
	huma.Register(s.api, take, func(ctx context.Context, in *measureIn) (*scannersOut, error) {
		all, err := s.measureScanner(ctx, in)
		if err != nil {
			return nil, problem(err)
		}
		return &scannersOut{all}, nil
	})
	huma.Register(s.api, op("forget-scanner", http.MethodDelete, "/api/scanners/{name}", "Forget a measured scanner"), func(ctx context.Context, in *scannerName) (*scannersOut, error) {
		all, err := s.measuredScanners(ctx)
		if err != nil {
			return nil, problem(err)
		}
		left := slices.DeleteFunc(all, func(d Scanner) bool { return d.Name == in.Name })
		if err := s.keepScanners(ctx, left); err != nil {
			return nil, problem(err)
		}
		return &scannersOut{left}, nil
	})
}

func (s *Server) measuredScanners(ctx context.Context) ([]Scanner, error) {
	raw, err := s.store.Setting(ctx, scannersKey, "[]")
	if err != nil {
		return nil, fmt.Errorf("read the scanners: %w", err)
	}
	out := []Scanner{}
	if json.Unmarshal([]byte(raw), &out) != nil {
		return []Scanner{}, nil // set apart when the file is opened next
	}
	w, _ := s.writing(ctx)
	for i := range out {
		out[i].Said = axesSaid(out[i], w)
	}
	return out, nil
}

func (s *Server) keepScanners(ctx context.Context, all []Scanner) error {
	raw, err := json.Marshal(all)
	if err != nil {
		return fmt.Errorf("keep the scanners: %w", err)
	}
	return s.store.Set(ctx, scannersKey, string(raw))
}

func (s *Server) measureScanner(ctx context.Context, in *measureIn) ([]Scanner, error) {
	name := strings.TrimSpace(in.Name)
	if name == "" {
		return nil, kit.Problem{Path: "name", What: "give the scanner a name"}
	}
	a, err := heavy(ctx, &s.jobs, nil, func() (axes.Axes, error) { return readAxes(ctx, in) })
	if err != nil {
		return nil, err
	}
	all, err := s.measuredScanners(ctx)
	if err != nil {
		return nil, err
	}
	d := Scanner{Name: name, From: in.From, On: time.Now().Format(time.DateOnly), Axes: a}
	w, _ := s.writing(ctx)
	d.Said = axesSaid(d, w)
	all = append(slices.DeleteFunc(all, func(o Scanner) bool { return o.Name == name }), d)
	return all, s.keepScanners(ctx, all)
}

// readAxes reads the axes off the page that was scanned.
func readAxes(ctx context.Context, in *measureIn) (axes.Axes, error) {
	p, err := picture.Decode(in.RawBody)
	if err != nil {
		return axes.Axes{}, err
	}
	dpi := p.Typed(in.DPI)
	if dpi == 0 {
		dpi = p.DPI
	}
	if dpi == 0 {
		return axes.Axes{}, errNoDPI
	}
	if dpi < leastDPI {
		return axes.Axes{}, tooCoarse(dpi)
	}
	if in.From == "mat" {
		if in.Measured == 0 {
			return axes.Axes{}, kit.Problem{Path: "measured", What: "measure the printed mat with a ruler: from the middle of one upper corner mark to the middle of the other"}
		}
		return axes.Mat(p, dpi, in.Measured)
	}
	return axes.Card(ctx, p, dpi)
}

// scanner is a measured one by its name.
func (s *Server) scanner(ctx context.Context, name string) (Scanner, error) {
	all, err := s.measuredScanners(ctx)
	if err != nil {
		return Scanner{}, err
	}
	i := slices.IndexFunc(all, func(d Scanner) bool { return d.Name == name })
	if i < 0 {
		return Scanner{}, &picture.Problem{What: fmt.Sprintf("No scanner called %q was measured.", name), Mend: "Measure it once with a bank card, or choose one that is not measured."}
	}
	return all[i], nil
}

// axesSaid says what a scanner makes of a length.
func axesSaid(d Scanner, w measure.Writing) string {
	over := 100.0 // mm
	if w.Unit == measure.Inches {
		over = 101.6
	}
	by := "a bank card"
	if d.From == "mat" {
		by = "the printed mat"
	}
	one := func(k float64) string {
		off := (1 - 1/k) * over
		switch {
		case off > 0.02:
			return w.Thin(off) + " too short"
		case off < -0.02:
			return w.Thin(-off) + " too long"
		}
		return "true"
	}
	square := "square"
	if off := math.Abs(d.Axes.Skew) * 180 / math.Pi; off >= 0.01 {
		square = fmt.Sprintf("%.2f° off square", off)
	}
	return fmt.Sprintf("Measured by %s: over %s it draws across %s, down %s, %s. Sizes are sure to %.2f %%.", by, w.Length(over), one(d.Axes.X), one(d.Axes.Y), square, 100*d.Axes.Sure)
}
