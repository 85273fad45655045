package movement

// Joint is a joint that loads are counted for.
type Joint string

// The joints.
const (
	Wrist         Joint = "wrist"
	ElbowFront    Joint = "elbow_front"
	ElbowBack     Joint = "elbow_back"
	ShoulderFront Joint = "shoulder_front"
	ShoulderTop   Joint = "shoulder_top"
)

// Joints are all joints, from the hand up.
var Joints = []Joint{Wrist, ElbowFront, ElbowBack, ShoulderFront, ShoulderTop}

// JointCount is how many joints the record has.
const JointCount = 5

// Words names a joint.
func (j Joint) Words() string {
	return map[Joint]string{Wrist: "wrist", ElbowFront: "front of the elbow", ElbowBack: "back of the elbow",
		ShoulderFront: "front of the shoulder", ShoulderTop: "top of the shoulder"}[j]
}

// JointScores is how hard a family is on each joint, 0–3.
type JointScores struct {
	Wrist         int `yaml:"wrist"`
	ElbowFront    int `yaml:"elbow_front"`
	ElbowBack     int `yaml:"elbow_back"`
	ShoulderFront int `yaml:"shoulder_front"`
	ShoulderTop   int `yaml:"shoulder_top"`
}

// Of returns the score of a joint, −1 for one there is not.
func (s JointScores) Of(j Joint) int {
	if p := s.at(j); p != nil {
		return *p
	}
	return -1
}

func (s *JointScores) at(j Joint) *int {
	switch j {
	case Wrist:
		return &s.Wrist
	case ElbowFront:
		return &s.ElbowFront
	case ElbowBack:
		return &s.ElbowBack
	case ShoulderFront:
		return &s.ShoulderFront
	case ShoulderTop:
		return &s.ShoulderTop
	}
	return nil
}

// Harder is a setting that makes a family harder on a joint.
type Harder struct {
	Joint   Joint   `yaml:"joint"`
	Score   int     `yaml:"score"`
	Setting Key     `yaml:"setting"`
	Under   float64 `yaml:"under"` // a number below this
	Word    string  `yaml:"word"`  // or this word
}

// Applies says whether a set-up is one of the harder ones.
func (h *Harder) Applies(s SetUp) bool {
	if h.Word != "" {
		return h.Setting == Implement && string(s.Implement()) == h.Word
	}
	v, ok := s.Value(h.Setting)
	return ok && v.Number < h.Under
}

// Joints is how hard the set-up is on each joint, with what its settings add.
func (s SetUp) Joints() JointScores {
	out := s.Movement.Joints
	for i := range s.Movement.Family.Harder {
		if h := &s.Movement.Family.Harder[i]; h.Applies(s) {
			if p := out.at(h.Joint); *p < h.Score {
				*p = h.Score
			}
		}
	}
	return out
}
