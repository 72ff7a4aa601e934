package delta

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// Apply makes changes of a document that was read into maps and lists, which it changes, and gives
// what comes of it: what the page does with an answer. The error names the place that is not there.
func Apply(doc any, changes []Change) (any, error) {
	for _, c := range changes {
		var err error
		if doc, err = put(doc, c.At, c); err != nil {
			return doc, fmt.Errorf("change %s: %w", strings.Join(c.At, ", "), err)
		}
	}
	return doc, nil
}

func put(in any, at []string, c Change) (any, error) {
	if len(at) == 0 {
		if c.Order == nil {
			return c.value()
		}
		return c.ordered(in), nil
	}
	switch in := in.(type) {
	case map[string]any:
		is, err := put(in[at[0]], at[1:], c)
		in[at[0]] = is
		return in, err
	case []any:
		i := slices.IndexFunc(in, func(v any) bool { return called(v) == at[0] })
		if i < 0 {
			return in, fmt.Errorf("nothing there is called %q", at[0])
		}
		is, err := put(in[i], at[1:], c)
		in[i] = is
		return in, err
	}
	return in, fmt.Errorf("nothing in there is called %q", at[0])
}

// value is what is there now, as it would be read.
func (c Change) value() (is any, err error) {
	raw, err := json.Marshal(c.Is)
	if err != nil {
		return nil, fmt.Errorf("write what is there now: %w", err)
	}
	return is, json.Unmarshal(raw, &is)
}

// ordered is a list in its new order; of what is new in it there is no more than its id yet.
func (c Change) ordered(in any) any {
	old, _ := in.([]any)
	out := []any{}
	for _, id := range c.Order {
		if i := slices.IndexFunc(old, func(v any) bool { return called(v) == id }); i >= 0 {
			out = append(out, old[i])
		} else {
			out = append(out, map[string]any{"id": id})
		}
	}
	return out
}

// called is the id of an item of a list, or its key where its id is no word.
func called(v any) string {
	m, _ := v.(map[string]any)
	if id, ok := m["id"].(string); ok {
		return id
	}
	key, _ := m["key"].(string)
	return key
}
