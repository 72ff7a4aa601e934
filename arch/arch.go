// Package arch guards the direction of the arrows between packages.
package arch
