package sheet_test

import (
	"context"
	"fmt"
	"reflect"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/measure"
	"ochrestone/core/plan"
	"ochrestone/core/trial"
	"ochrestone/exchange/sheet"
)

// wrong are sentences that cannot be true, or that nobody would say.
var wrong = map[string]*regexp.Regexp{
	"a measure of nought":      regexp.MustCompile(`(^|[^\d.,])0(\.0+)? (mm|in|seconds?|minutes?|cm|g|°|%|°)([^a-z²]|$)`),
	"nothing counted":          regexp.MustCompile(`(^|[^\d.,⁄])0 (pads?|passes|cards?|sheets?|drops|times|pieces|islands|prints|steps|strikes|letters|impressions)\b`),
	"doubled blanks":           regexp.MustCompile(`  `),
	"a blank before a stop":    regexp.MustCompile(` [.,;:!?]`),
	"doubled stops":            regexp.MustCompile(`\.\.|,,|;;`),
	"one and many":             regexp.MustCompile(`(?i)(^|[^\d.,⁄])(1|one) (passes|cards|sheets|pads|islands|prints|steps|strikes|letters|pieces|openings|dots|runs|layers|times)\b`),
	"one of them takes":        regexp.MustCompile(`(?i)\bone (card|sheet|pad|piece) (take|have|are|lie|need|stand)\b`),
	"many of them takes":       regexp.MustCompile(`\b[2-9]\d* (cards|sheets|pads|pieces) (takes|has|is|lies|needs|stands)\b`),
	"an empty pair of quotes":  regexp.MustCompile(`“”|""`),
	"what is not filled in":    regexp.MustCompile(`%!|<nil>|\bNaN\b|\+Inf|-Inf`),
	"a small letter to begin":  regexp.MustCompile(`[a-z]\. [a-z]`),
	"a verb for one with many": regexp.MustCompile(`\band [^.;,]+ (has|is) (no|not|marked)\b`),
}

// sentencesOf are all texts for people in a value, by their place.
func sentencesOf(path string, v reflect.Value, out map[string]string) {
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			sentencesOf(path, v.Elem(), out)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			if f.IsExported() && f.Tag.Get("json") != "-" && f.Name != "Edits" && f.Name != "Step" && f.Name != "Key" && f.Name != "Path" && f.Name != "Cause" {
				sentencesOf(path+"."+f.Name, v.Field(i), out)
			}
		}
	case reflect.Slice:
		for i := range v.Len() {
			sentencesOf(fmt.Sprintf("%s[%d]", path, i), v.Index(i), out)
		}
	case reflect.String:
		if s := v.String(); regexp.MustCompile(`[a-z]{2,} [a-z]|^\d+ [a-z]`).MatchString(s) {
			out[path] = s
		}
	}
}

// Every sentence of every demo, trial and stranger's card, on the page in millimetres and in
// inches, and in its cut list: nothing of nought, no doubled blanks, no wrong number.
func TestEverySentence(t *testing.T) {
	all := everyCard(t)
	for _, s := range trial.Strangers() {
		all = append(all, made{"trial " + s.ID, s.Card, s.Kit})
	}
	for _, m := range all {
		t.Run(m.name, func(t *testing.T) {
			t.Parallel()
			said := map[string]string{}
			planner := plan.NewPlanner()
			for _, w := range []measure.Writing{measure.Metric, {Unit: measure.Inches, Den: 16}} {
				opts := []plan.Option{plan.Typeface(sheet.Face{}), plan.Writing(w)}
				p := planner.Of(m.c, m.k, opts...)
				require.Empty(t, p.Failed)
				at := string(w.Unit)
				for what, v := range map[string]any{"findings": p.Findings, "steps": p.Steps, "treated": p.Front.Treated, "letters": p.Front.Letters, "patterns": p.Patterns, "elements": p.Front.Elements, "post": p.Depth.Post, "mailed": p.Depth.Mailed,
					"standing": planner.Standing(p, opts...)} {
					sentencesOf(at+" "+what, reflect.ValueOf(v), said)
				}
				sat := planner.Sitting([]plan.Job{{Card: m.c}}, m.k, plan.Did{}, opts...)
				sentencesOf(at+" sitting", reflect.ValueOf(sat.AtHand), said)
				sentencesOf(at+" cut", reflect.ValueOf(planner.Cutting(context.Background(), []plan.Job{{Card: m.c}}, m.k, nil, opts...)), said)
			}
			told := map[string]bool{}
			for path, s := range said {
				for what, is := range wrong {
					if is.MatchString(s) && !told[what+s] {
						told[what+s] = true
						assert.Fail(t, what, "%s\n%q", path, s)
					}
				}
			}
		})
	}
}
