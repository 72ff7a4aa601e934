package depth

import (
	"bytes"
	_ "embed" // the carriers' figures
	"encoding/json"
	"fmt"
	"math"

	"ochrestone/core/measure"
)

// Carrier is who carries a card, with the classes it sorts letters into, the cheapest
// first. Figures are as published at a date; the carrier's current rules go first.
type Carrier struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Source  string      `json:"source"`
	Date    string      `json:"date"`
	Classes []MailClass `json:"classes"`
}

// MailClass is what a carrier takes at one price: lengths in mm, 0 where there is no limit.
type MailClass struct {
	Name      string  `json:"name"`
	MinShort  float64 `json:"minShort,omitempty"`
	MinLong   float64 `json:"minLong,omitempty"`
	MinThick  float64 `json:"minThick,omitempty"`
	MaxShort  float64 `json:"maxShort"`
	MaxLong   float64 `json:"maxLong"`
	MaxThick  float64 `json:"maxThick"`
	MaxGrams  float64 `json:"maxGrams"`
	MinAspect float64 `json:"minAspect,omitempty"` // length over height
	MaxAspect float64 `json:"maxAspect,omitempty"`
	Even      bool    `json:"even,omitempty"` // nothing raised within it, by more than UnevenBy
}

//go:embed carriers.json
var published []byte

// Published is the file of carriers as it comes, for a person to edit.
func Published() []byte { return bytes.Clone(published) }

// Carriers are the carriers of the file as it comes.
func Carriers() []Carrier {
	out, err := ReadCarriers(published)
	if err != nil {
		panic(err) // a test reads it
	}
	return out
}

// mostCarriers is how many carriers a file may name.
const mostCarriers = 20

// ReadCarriers reads a file of carriers. The error names the carrier, the class and what
// to mend.
func ReadCarriers(doc []byte) ([]Carrier, error) {
	d := json.NewDecoder(bytes.NewReader(doc))
	d.DisallowUnknownFields()
	var out []Carrier
	if err := d.Decode(&out); err != nil {
		return nil, fmt.Errorf("read the carriers: %w", err)
	}
	if len(out) == 0 || len(out) > mostCarriers {
		return nil, fmt.Errorf("read the carriers: %d of them; give 1 to %d", len(out), mostCarriers)
	}
	for i, c := range out {
		if c.Name == "" || c.Source == "" || c.Date == "" {
			return nil, fmt.Errorf("read the carriers: number %d needs a name, a source and a date", i+1)
		}
		if len(c.Classes) == 0 {
			return nil, fmt.Errorf("read the carriers: %s has no classes", c.Name)
		}
		for _, m := range c.Classes {
			for _, v := range []float64{m.MaxShort, m.MaxLong, m.MaxThick, m.MaxGrams} {
				if !(v > 0) || math.IsInf(v, 0) {
					return nil, fmt.Errorf("read the carriers: %s, class %q needs maxShort, maxLong, maxThick and maxGrams above 0", c.Name, m.Name)
				}
			}
			if m.MinShort > m.MaxShort || m.MinLong > m.MaxLong || m.MinThick > m.MaxThick {
				return nil, fmt.Errorf("read the carriers: %s, class %q has a least above its most", c.Name, m.Name)
			}
		}
	}
	return out, nil
}

// Letter is a filled envelope.
type Letter struct {
	Size   measure.Size
	Thick  float64 // mm
	Grams  float64
	Raised float64 // how much stands above the rest of the front, mm
}

// Mailed is how a carrier takes a letter.
type Mailed struct {
	Carrier string `json:"carrier"`
	Class   string `json:"class" doc:"the cheapest class that takes it; parcel: none does"`
	Not     string `json:"not,omitempty" doc:"why it is not the cheapest class"`
	Source  string `json:"source"`
	Date    string `json:"date"`
}

// Parcel is what none of a carrier's classes takes.
const Parcel = "parcel"

// Take says how a carrier takes a letter: the first of its classes whose limits all hold,
// and why not the first of them.
func (c Carrier) Take(l Letter, w measure.Writing) Mailed {
	out := Mailed{Carrier: c.Name, Class: Parcel, Source: c.Source, Date: c.Date}
	for i, m := range c.Classes {
		why := m.refuses(l, w)
		if why == "" {
			out.Class = m.Name
			break
		}
		if i == 0 {
			out.Not = fmt.Sprintf("Not %s: %s.", m.Name, why)
		}
	}
	return out
}

// refuses says why a class does not take a letter; empty where it does.
func (m MailClass) refuses(l Letter, w measure.Writing) string {
	const eps = 1e-6
	short, long := min(l.Size.W, l.Size.H), max(l.Size.W, l.Size.H)
	aspect := long / max(short, eps)
	switch {
	case l.Thick > m.MaxThick+eps:
		return fmt.Sprintf("%s thick, %s at most", w.Thin(l.Thick), w.Thin(m.MaxThick))
	case l.Thick < m.MinThick-eps:
		return fmt.Sprintf("%s thick, %s at least", w.Thin(l.Thick), w.Thin(m.MinThick))
	case short > m.MaxShort+eps || long > m.MaxLong+eps:
		return fmt.Sprintf("larger than %s × %s", w.Length(m.MaxLong), w.Length(m.MaxShort))
	case short < m.MinShort-eps || long < m.MinLong-eps:
		return fmt.Sprintf("smaller than %s × %s", w.Length(m.MinLong), w.Length(m.MinShort))
	case l.Grams > m.MaxGrams+eps:
		return fmt.Sprintf("%s, %s at most", w.Weight(l.Grams), w.Weight(m.MaxGrams))
	case m.MinAspect > 0 && aspect < m.MinAspect-eps:
		return "too near a square"
	case m.MaxAspect > 0 && aspect > m.MaxAspect+eps:
		return "too long for its height"
	case m.Even && l.Raised > unevenBy:
		return "uneven: " + w.Thin(l.Raised) + " stand above the panel"
	}
	return ""
}
