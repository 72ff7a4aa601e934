package motif

// Ribbed work is told by its ribs, and by how little there is of it for its outline: our own defaults.
const (
	RibsFrom = 5   // ribs, teeth or slits alike
	openWork = 1.5 // mm, area over the length of the outline, at most
)

// Ribbed reports whether a layer is open work of ribs, teeth or slits, through which its back is
// seen, and how far they are from middle to middle, mm.
func (v View) Ribbed() (pitch float64, ok bool) {
	if v.Area > openWork*v.Edge {
		return 0, false
	}
	return v.Outline.Pitch(RibsFrom)
}
