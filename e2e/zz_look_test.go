package e2e
import ("testing";"time")
func TestZZLook(t *testing.T){
 a:=start(t)
 p:=a.signedIn(t, wren, laptop, "/library")
 p.until(`document.querySelector('input[data-find],[data-find] input')`)
 p.typeInto(`input[data-find],[data-find] input`, "seated alternating hammer curls 3x12 35 lbs")
 time.Sleep(1500*time.Millisecond)
 p.shot("/tmp/look/lib1.png")
 q:=a.signedIn(t, wren, laptop, "/library")
 q.until(`document.querySelector('input[data-find],[data-find] input')`)
 q.typeInto(`input[data-find],[data-find] input`, "fluffy bar curl")
 time.Sleep(1500*time.Millisecond)
 q.shot("/tmp/look/lib2.png")
 r:=a.signedIn(t, wren, laptop, "/fitting?movement=lying_cable&settings="+`{"implement":"rope"}`)
 r.until(`document.querySelector('.stage_held')`)
 time.Sleep(500*time.Millisecond)
 r.shot("/tmp/look/fit1.png")
}
