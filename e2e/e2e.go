// Package e2e drives the real program through a real browser.
package e2e
