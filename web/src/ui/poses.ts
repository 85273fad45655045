/** poseWords name the poses of pictures and ratings. */
export const poseWords: Record<string, string> = {
  front_straight: 'front, arms straight',
  front_bent: 'front, arms bent',
  side_straight: 'side, arm straight',
  side_bent: 'side, arm bent',
  back_straight: 'back, arms straight',
  back_bent: 'back, arms bent',
}
