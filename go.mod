module musculus

go 1.26.0

require github.com/stretchr/testify v1.12.1

require (
	github.com/goccy/go-yaml v1.19.2 // indirect
	go.yaml.in/yaml/v3 v3.0.5 // indirect
)
