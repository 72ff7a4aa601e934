// Package calendar writes waits as an iCalendar file, for a calendar to remind of them.
package calendar

import (
	"fmt"
	"io"
	"strings"
	"time"
	"unicode/utf8"
)

// Event is something to be reminded of.
type Event struct {
	ID   string
	At   time.Time
	What string
	Why  string
}

const stamp = "20060102T150405Z"

// Write writes events as iCalendar (RFC 5545): each a quarter of an hour long, with an alarm
// when it begins. made is when the file is made.
func Write(w io.Writer, made time.Time, events []Event) error {
	var b strings.Builder
	line := func(s string) { b.WriteString(folded(s)) }
	line("BEGIN:VCALENDAR")
	line("VERSION:2.0")
	line("PRODID:-//Ochrestone//Waits//EN")
	for _, e := range events {
		line("BEGIN:VEVENT")
		line("UID:" + escaped(e.ID) + "@ochrestone")
		line("DTSTAMP:" + made.UTC().Format(stamp))
		line("DTSTART:" + e.At.UTC().Format(stamp))
		line("DTEND:" + e.At.Add(15*time.Minute).UTC().Format(stamp))
		line("SUMMARY:" + escaped(e.What))
		if e.Why != "" {
			line("DESCRIPTION:" + escaped(e.Why))
		}
		line("BEGIN:VALARM")
		line("ACTION:DISPLAY")
		line("DESCRIPTION:" + escaped(e.What))
		line("TRIGGER:PT0S")
		line("END:VALARM")
		line("END:VEVENT")
	}
	line("END:VCALENDAR")
	if _, err := io.WriteString(w, b.String()); err != nil {
		return fmt.Errorf("write the calendar: %w", err)
	}
	return nil
}

// escaped is a text value (RFC 5545, 3.3.11).
func escaped(s string) string {
	return strings.NewReplacer(`\`, `\\`, ";", `\;`, ",", `\,`, "\r\n", `\n`, "\n", `\n`, "\r", `\n`).Replace(s)
}

// folded is a content line of at most 75 octets a piece (RFC 5545, 3.1).
func folded(s string) string {
	var b strings.Builder
	room := 75
	for _, r := range s {
		if n := utf8.RuneLen(r); n > room {
			b.WriteString("\r\n ")
			room = 74
		}
		b.WriteRune(r)
		room -= utf8.RuneLen(r)
	}
	b.WriteString("\r\n")
	return b.String()
}
