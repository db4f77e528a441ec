package job

// What work may ask of those who do it.
const (
	Arborist   = "licensed arborist"
	Restricted = "licence for restricted products"
	Spraying   = "licence to spray for hire" // where any product put on others' plants needs one
	Ladder     = "ladder"
	Climbing   = "climbing"
	Chainsaw   = "chainsaw"
	Grafting   = "grafting"
	LineWork   = "line clearance"
)

// Skills are all that a person may have.
var Skills = []string{Arborist, Restricted, Spraying, Climbing, Chainsaw, Ladder, Grafting, LineWork}
