package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/validation"

	"ochrestone/core/words"
)

// What the library says of a request that does not fit its schema, in our words.
func init() {
	validation.MsgUnexpectedProperty = "is not known here; take it out"
	validation.MsgExpectedBoolean = "say true or false"
	validation.MsgExpectedNumber = "give a number"
	validation.MsgExpectedInteger = "give a whole number"
	validation.MsgExpectedString = "give a text"
	validation.MsgExpectedArray = "give a list"
	validation.MsgExpectedObject = "give its fields"
	validation.MsgExpectedOneOf = "choose one of: %s"
	validation.MsgExpectedMinimumNumber = "is at least %v"
	validation.MsgExpectedExclusiveMinimumNumber = "is more than %v"
	validation.MsgExpectedMaximumNumber = "is at most %v"
	validation.MsgExpectedExclusiveMaximumNumber = "is less than %v"
	validation.MsgExpectedMinLength = "has at least %d letters"
	validation.MsgExpectedMaxLength = "has at most %d letters"
	validation.MsgExpectedMinItems = "has at least %d entries"
	validation.MsgExpectedMaxItems = "has at most %d entries"
	validation.MsgExpectedRequiredProperty = "%s is missing"
	validation.MsgExpectedArrayItemsUnique = "has an entry twice"
	huma.NewError = inWords
}

// inWords makes the answer to a request that the library refused.
func inWords(status int, msg string, errs ...error) huma.StatusError {
	m := &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: msg, Type: "/problems/request"}
	for _, err := range errs {
		var d *huma.ErrorDetail
		if !errors.As(err, &d) {
			var det huma.ErrorDetailer
			if errors.As(err, &det) {
				d = det.ErrorDetail()
			} else if err != nil {
				d = &huma.ErrorDetail{Message: err.Error()}
			} else {
				continue
			}
		}
		m.Errors = append(m.Errors, &huma.ErrorDetail{Message: d.Message, Location: field(d.Location)})
	}
	switch {
	case msg == "validation failed":
		m.Status = http.StatusUnprocessableEntity
		m.Type, m.Title = "/problems/invalid", "Something is missing or wrong"
		m.Detail = "Something is missing or wrong. Nothing was changed."
		if len(m.Errors) > 0 {
			first := m.Errors[0]
			m.Detail = strings.TrimSpace(first.Location+" "+first.Message) + ". Nothing was changed."
			m.Detail = words.Capital(m.Detail)
		}
	case status == http.StatusRequestEntityTooLarge:
		m.Type, m.Title = "/problems/too-large", "Too large"
		m.Detail = fmt.Sprintf("The file is larger than %d MB. Nothing was taken in; make it smaller and try again.", maxUpload>>20)
	case status == http.StatusUnsupportedMediaType:
		m.Detail = "A file of that kind is not read here. Nothing was taken in."
	case status == http.StatusBadRequest && msg == "request body is required":
		m.Detail = "The request was empty. Nothing was changed."
	case status == http.StatusRequestTimeout || strings.Contains(msg, "timeout"):
		m.Type, m.Status = "/problems/stalled", http.StatusRequestTimeout
		m.Title, m.Detail = http.StatusText(m.Status), "The file stopped coming in. Nothing was kept; try again."
	}
	return m
}

// field is a place in a request without the words of the library around it.
func field(loc string) string {
	for _, head := range []string{"body.", "query.", "path.", "header."} {
		loc = strings.TrimPrefix(loc, head)
	}
	if loc == "body" {
		return ""
	}
	return loc
}

// mostNumber is the largest number any request may hold: lengths end at metres.
const mostNumber = 1e9

// errOut is a number that cannot be.
type errOut struct{ at string }

func (e *errOut) Error() string { return e.at + ": the number is out of all bounds" }

// jsonFormat reads JSON like the standard format, but for numbers past
// mostNumber, which are refused with their place.
var jsonFormat = huma.Format{
	Marshal: func(w io.Writer, v any) error { return json.NewEncoder(w).Encode(v) },
	Unmarshal: func(data []byte, v any) error {
		if err := json.Unmarshal(data, v); err != nil {
			var syntax *json.SyntaxError
			if errors.As(err, &syntax) {
				return fmt.Errorf("the request breaks off or is no JSON at byte %d; nothing was changed", syntax.Offset)
			}
			return err
		}
		if p, ok := v.(*any); ok {
			return bounded(*p, "")
		}
		return nil
	},
}

func bounded(v any, at string) error {
	switch v := v.(type) {
	case float64:
		if !(math.Abs(v) <= mostNumber) {
			return &errOut{strings.TrimPrefix(at, ".")}
		}
	case map[string]any:
		for _, k := range slices.Sorted(maps.Keys(v)) { // the same place is named at every run
			if err := bounded(v[k], at+"."+k); err != nil {
				return err
			}
		}
	case []any:
		for i, w := range v {
			if err := bounded(w, fmt.Sprintf("%s[%d]", at, i)); err != nil {
				return err
			}
		}
	}
	return nil
}

// finite refuses query numbers that are none, such as NaN, which pass every bound.
func (s *Server) finite(ctx huma.Context, next func(huma.Context)) {
	for _, p := range ctx.Operation().Parameters {
		if p.In != "query" || p.Schema == nil || p.Schema.Type != "number" {
			continue
		}
		text := ctx.Query(p.Name)
		if v, err := strconv.ParseFloat(text, 64); err == nil && !(math.Abs(v) <= mostNumber) {
			_ = huma.WriteErr(s.api, ctx, http.StatusUnprocessableEntity, "validation failed", &huma.ErrorDetail{Location: p.Name, Message: "give a number"})
			return
		}
	}
	next(ctx)
}

// answer writes a problem to a plain request.
func answer(w http.ResponseWriter, m *huma.ErrorModel) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(m.Status)
	_ = json.NewEncoder(w).Encode(m)
}
