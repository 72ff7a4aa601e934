package sheet

import (
	"bytes"
	"fmt"
	"io"
	"regexp"
	"strconv"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/depth"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
)

// SmallFront writes the assembled front as SVG for a picture some centimetres large: its
// outlines are to a tenth of a millimetre.
func SmallFront(w io.Writer, c card.Card, k kit.Kit, pl plan.Plan) error {
	var b bytes.Buffer
	if err := FrontSVG(&b, c, k, pl); err != nil {
		return err
	}
	if _, err := w.Write(pathData.ReplaceAllFunc(b.Bytes(), coarse)); err != nil {
		return fmt.Errorf("write the small front: %w", err)
	}
	return nil
}

var (
	pathData = regexp.MustCompile(` d="[^"]*"`)
	decimals = regexp.MustCompile(`\d*\.\d{2,}`)
)

// coarse rounds the numbers of path data to one decimal.
func coarse(d []byte) []byte {
	return decimals.ReplaceAllFunc(d, func(n []byte) []byte {
		v, err := strconv.ParseFloat(string(n), 64)
		if err != nil {
			return n
		}
		return []byte(strconv.FormatFloat(v, 'f', 1, 64))
	})
}

// Colours of what is drawn of a section beside the cards themselves.
const (
	baseEdge = "#d9c9ac"
	foamFace = "#f7f7f5"
	foamEdge = "#a9b0b4"
)

// Heights of the picture of a section, in its own units: one is a millimetre across.
const (
	strataHigh = 44.0
	thinnest   = 1.5 // what is drawn of a print, which has no height
)

// Strata writes the section through the highest place of a card as SVG, stretched upwards so
// that it is 44 units high, and says how many strata it cuts.
func Strata(w io.Writer, c card.Card, pl plan.Plan) (int, error) {
	k := strataHigh / max(pl.Depth.Total, 1)
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %.2f %.0f" preserveAspectRatio="none">`, c.Base.W, strataHigh+2)
	box := func(x0, x1, top, high float64, fill, more string) {
		fmt.Fprintf(&b, `<rect x="%.2f" y="%.2f" width="%.2f" height="%.2f" fill="%s"%s/>`, x0, top, max(0, x1-x0), high, fill, more)
	}
	box(0, c.Base.W, strataHigh-pl.Depth.Base*k, pl.Depth.Base*k, baseEdge, "")
	cuts := depth.Section(pl.Stood, pl.Depth.AtY)
	for _, s := range cuts {
		st := pl.Stood[s.Index]
		if st.Foam {
			box(s.X0, s.X1, strataHigh-st.Z0*k, st.Lift*k, foamFace, ` stroke="`+foamEdge+`" stroke-width="0.3"`)
		}
		fill, top := st.Body, strataHigh-st.Z1*k
		if st.ID.Part != "" {
			fill = st.Top
		}
		if st.Z1 == st.Z0 {
			top -= thinnest
		}
		box(s.X0, s.X1, top, max(thinnest, (st.Z1-st.Z0)*k), fill, "")
	}
	b.WriteString(`</svg>`)
	if _, err := io.WriteString(w, b.String()); err != nil {
		return 0, fmt.Errorf("write the strata: %w", err)
	}
	return len(cuts), nil
}
