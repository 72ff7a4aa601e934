package work

// Stands is how far a card is.
type Stands string

// How far a card can be.
const (
	Planned  Stands = "planned"  // nothing of it is done
	Begun    Stands = "begun"    // some of its steps are done
	Waiting  Stands = "waiting"  // begun, and something of it dries or sets
	Finished Stands = "finished" // all steps are done, or it was made before and not begun again
	PutAway  Stands = "put away" // the person put it away, however far it is
)

// StandsAt says how far a card is of whose steps so many are done, that was made so often
// before, and whether something of it has to wait.
func StandsAt(done, steps, made int, waits, away bool) Stands {
	switch {
	case away:
		return PutAway
	case done > 0 && done >= steps:
		return Finished
	case done > 0 && waits:
		return Waiting
	case done > 0:
		return Begun
	case made > 0:
		return Finished
	}
	return Planned
}
