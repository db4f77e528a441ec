package job

// Level is how costs up to a limit are called; {when} stands for early or late.
type Level struct {
	UpTo int    `json:"up_to" doc:"0 best to 100 worst; 101 forbidden"`
	Word string `json:"word" doc:"{when} stands for early or late"`
	Good bool   `json:"good" doc:"Good enough to be put on a day"`
}

// Levels are the words for costs, the best first.
func Levels() []Level {
	return []Level{
		{5, "best", true},
		{Acceptable.Int(), "good", true},
		{70, "too {when}", false},
		{Worst.Int(), "much too {when}", false},
		{Never.Int(), "not allowed", false},
	}
}
