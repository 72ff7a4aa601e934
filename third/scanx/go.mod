module github.com/srwiley/scanx

go 1.26
require golang.org/x/image v0.47.0
