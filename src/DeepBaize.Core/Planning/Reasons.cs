using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Planning;

/// <summary>Finds out what speaks for a shot, and what against it: from what the simulation did, not from what was meant. The limits are common practice, no source.</summary>
internal static class Reasons
{
    private const double Straight = 8, Steep = 58, LongPot = 1.5, WorthMoving = 0.03, HighOrLow = 0.02, AlongEnough = 0.25, PaceMatters = 0.35, HoldsWell = 0.15, TightOnCushion = 2 * BallRadius;

    /// <param name="area">Of good places, round the one that is meant.</param>
    public static IReadOnlyList<Reason> Of(
        Situation before, Choice choice, PotLines linesBefore, PotLines linesAfter, IReadOnlyList<PathPoint> path, IReadOnlyList<PathPoint> area, CoverOutcome longer, CoverOutcome shorter)
    {
        var reasons = new List<Reason>();
        var after = choice.After.After;
        if (after.Frame.IsOver) return reasons;
        Freed(reasons, before, after, choice, linesBefore, linesAfter);
        Moved(reasons, before, after, choice);

        var reds = (Before: Free(linesBefore), After: Free(linesAfter));
        var potted = choice.Nominated.IsRed ? 1 : 0;
        if (reds.After - (reds.Before - potted) >= 2) reasons.Add(new(ReasonCode.Opens, null, null, reds.After - (reds.Before - potted), choice.Next.Others));
        else if (reds.After >= 3) reasons.Add(new(ReasonCode.KeepsReds, null, null, reds.After));

        if (choice.Next.Pot is { } next)
        {
            var ball = after.Layout.Balls[next.Line.Slot];
            var white = after.Layout.White;
            if (ball.Ball.IsColour && Math.Abs(white.X - ball.X) > HighOrLow)
                reasons.Add(new(white.X < ball.X ? ReasonCode.High : ReasonCode.Low, ball.Ball, null, Math.Abs(white.X - ball.X)));
            var degrees = next.CutRadians * 180 / Math.PI;
            reasons.Add(new(degrees < Straight ? ReasonCode.Straight : degrees > Steep ? ReasonCode.Steep : ReasonCode.Angle, ball.Ball, next.Line.Pocket, degrees, choice.Next.Chance));
            if (next.CueBallDistance > LongPot) reasons.Add(new(ReasonCode.Far, ball.Ball, null, next.CueBallDistance));
            if (choice.Next.Others > 0) reasons.Add(new(ReasonCode.Cover, null, null, choice.Next.Others));
            reasons.Add(choice.Next.Reach.Stance switch
            {
                Stance.Natural => new(ReasonCode.NaturalStance, ball.Ball, null, 0),
                Stance.Rest => new(ReasonCode.NeedsRest, ball.Ball, null, choice.Next.Reach.ErrorFactor),
                _ => new(ReasonCode.Stretch, ball.Ball, null, choice.Next.Reach.ErrorFactor),
            });
            var toCushion = Math.Min(Math.Min(white.X, Length - white.X), Math.Min(white.Y, Width - white.Y)) - BallRadius;
            if (toCushion < TightOnCushion) reasons.Add(new(ReasonCode.OnCushion, null, null, toCushion));
        }
        Paced(reasons, choice, path, area, longer, shorter);
        return reasons;
    }

    private static int Free(PotLines lines) => Enumerable.Range(1, lines.Count - 1).Count(i => lines.BallIn(i).IsRed && lines.IsFree(i));

    /// <summary>Ways of balls that were blocked and are open now; the most valuable two.</summary>
    private static void Freed(List<Reason> reasons, Situation before, Situation after, Choice choice, PotLines linesBefore, PotLines linesAfter)
    {
        var freed = new List<Reason>();
        foreach (var line in linesAfter.Lines)
        {
            var ball = linesAfter.BallIn(line.Slot);
            if (!line.IsOpen || ball == choice.Nominated) continue;
            var was = before.Layout.SlotOf(ball);
            foreach (var old in linesBefore.Lines)
                if (old.Slot == was && old.Pocket == line.Pocket && !old.IsOpen && (ball.IsColour || !linesBefore.IsFree(was)))
                    freed.Add(new(ReasonCode.Frees, ball, line.Pocket, Values.Of(ball)));
        }
        reasons.AddRange(freed.OrderByDescending(f => f.Amount).DistinctBy(f => f.Ball).Take(2));
    }

    /// <summary>Balls that the white has run into, and how far they went.</summary>
    private static void Moved(List<Reason> reasons, Situation before, Situation after, Choice choice)
    {
        foreach (var slot in choice.Route.Balls.Distinct())
        {
            var (was, now) = (before.Layout.Balls[slot], after.Layout.SlotOf(before.Layout.Balls[slot].Ball));
            if (now < 0 || was.Ball == choice.Nominated) continue;
            var by = Math.Sqrt(Math.Pow(after.Layout.Balls[now].X - was.X, 2) + Math.Pow(after.Layout.Balls[now].Y - was.Y, 2));
            if (by > WorthMoving) reasons.Add(new(ReasonCode.Moves, was.Ball, null, by));
        }
    }

    private static void Paced(List<Reason> reasons, Choice choice, IReadOnlyList<PathPoint> path, IReadOnlyList<PathPoint> area, CoverOutcome longer, CoverOutcome shorter)
    {
        if (path.Count > 1 && area.Count > 0)
        {
            // How far back along its way the white was already in the good area.
            var (along, at) = (0.0, path.Count - 1);
            while (at > 0 && Contours.Contains(area, path[at - 1].X, path[at - 1].Y))
            {
                along += Math.Sqrt(Math.Pow(path[at].X - path[at - 1].X, 2) + Math.Pow(path[at].Y - path[at - 1].Y, 2));
                at--;
            }
            if (along > AlongEnough) reasons.Add(new(ReasonCode.ComesAlong, null, null, along));
        }
        if (!longer.Scores || !shorter.Scores) return;
        var moves = Math.Sqrt(Math.Pow(longer.X - shorter.X, 2) + Math.Pow(longer.Y - shorter.Y, 2)) / 2;
        if (choice.Route.Cushions.Count > 0 && moves < HoldsWell) reasons.Add(new(ReasonCode.CushionHolds, null, null, moves));
        else if (moves > PaceMatters) reasons.Add(new(ReasonCode.PaceTells, null, null, moves));
    }
}
