package api

import "github.com/danielgtaylor/huma/v2/validation"

// What is wrong with a field, as one says it to a person. Set before any operation is registered.
func init() {
	for at, text := range map[*string]string{
		&validation.MsgUnexpectedProperty:             "is no field here",
		&validation.MsgExpectedRFC3339DateTime:        "want a time such as 2027-02-26T05:00:00Z",
		&validation.MsgExpectedRFC3339Date:            "want a day of the calendar, such as 2027-02-26",
		&validation.MsgExpectedBoolean:                "want yes or no (true or false)",
		&validation.MsgExpectedNumber:                 "want a number",
		&validation.MsgExpectedInteger:                "want a whole number",
		&validation.MsgExpectedString:                 "want a text",
		&validation.MsgExpectedArray:                  "want a list",
		&validation.MsgExpectedObject:                 "want fields with values",
		&validation.MsgExpectedOneOf:                  "want one of \"%s\"",
		&validation.MsgExpectedMinimumNumber:          "want %v or more",
		&validation.MsgExpectedExclusiveMinimumNumber: "want more than %v",
		&validation.MsgExpectedMaximumNumber:          "want %v or less",
		&validation.MsgExpectedExclusiveMaximumNumber: "want less than %v",
		&validation.MsgExpectedMinLength:              "is missing or too short: want %d or more characters",
		&validation.MsgExpectedMaxLength:              "is too long: want %d characters or less",
		&validation.MsgExpectedMinItems:               "says too little: want %d or more",
		&validation.MsgExpectedMaxItems:               "is too much at once: want %d or fewer",
		&validation.MsgExpectedRequiredProperty:       "%s is missing",
	} {
		*at = text
	}
}
