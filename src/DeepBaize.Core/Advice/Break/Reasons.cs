using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Break;

/// <summary>Why a shot is played as it is, or what speaks against it. Each carries a ball or a figure; words are the interface's.</summary>
public enum ReasonCode
{
    /// <summary>Its going opens the way of a ball into a pocket.</summary>
    Frees,

    /// <summary>A ball that is knocked away opens the way of a ball into a pocket.</summary>
    KnocksFree,

    /// <summary>
    /// So many more reds can be potted after it; into a pack it is not always the same (<see cref="Reason.Range"/>); Other: how many
    /// other balls are on if it goes wrong.
    /// </summary>
    Opens,

    /// <summary>Number of reds that can be potted after it.</summary>
    KeepsReds,

    /// <summary>The white stops so far on the baulk side of the next ball, m.</summary>
    High,

    /// <summary>The white stops so far on the top-cushion side of the next ball, m.</summary>
    Low,

    /// <summary>Angle on the next ball, degrees.</summary>
    Angle,

    /// <summary>The next ball is straight: only screw or follow moves the white.</summary>
    Straight,

    /// <summary>The next cut is so steep, degrees.</summary>
    Steep,

    /// <summary>The white runs so far along the good area, m: too long and too short both leave something.</summary>
    ComesAlong,

    /// <summary>Number of other balls on from there with at least half the chance.</summary>
    Cover,

    /// <summary>Off a cushion the usual error of pace moves the white by no more than this, m.</summary>
    CushionHolds,

    /// <summary>The usual error of pace moves the white by this, m.</summary>
    PaceTells,

    /// <summary>The next is played from a natural stance.</summary>
    NaturalStance,

    /// <summary>The next needs the rest.</summary>
    NeedsRest,

    /// <summary>The next is a stretch, or is played with the other hand.</summary>
    Stretch,

    /// <summary>Distance by which the white moves a ball that it runs into, m.</summary>
    Moves,

    /// <summary>The next ball is so far away, m.</summary>
    Far,

    /// <summary>The white stops within a ball of a cushion, m.</summary>
    OnCushion,
}

/// <summary>A reason, with what it is about.</summary>
public readonly record struct Reason(ReasonCode Code, Ball? Ball, Pocket? Pocket, double Amount, double Other = 0)
{
    /// <summary>Of what it is not always the same: the commonest number is the amount. Null where it is.</summary>
    public PackOpening? Range { get; init; }
}

/// <summary>
/// Finds out what speaks for a shot, and what against it: from what the simulation did, not from what was meant. The limits are common
/// practice, no source.
/// </summary>
internal static class Reasons
{
    private const double Straight = 8,
        Steep = 58,
        LongPot = 1.5,
        WorthMoving = 0.03,
        HighOrLow = 0.02,
        AlongEnough = 0.25,
        PaceMatters = 0.35,
        HoldsWell = 0.15,
        TightOnCushion = 2 * BallRadius;

    /// <param name="shot">With its drawing and cover; its reasons are ignored.</param>
    /// <param name="opening">What it does to a pack, if anything.</param>
    public static IReadOnlyList<Reason> Of(PlanShot shot, PotLines linesBefore, PotLines linesAfter, PackOpening? opening)
    {
        var reasons = new List<Reason>();
        var (before, choice) = (shot.Before, shot.Choice);
        var after = choice.Leaves;
        if (after.Frame.IsOver)
            return reasons;
        Freed(reasons, before, after, choice, linesBefore, linesAfter);
        Moved(reasons, before, after, choice);

        var reds = (Before: linesBefore.FreeReds, After: linesAfter.FreeReds);
        var potted = choice.Nominated.IsRed ? 1 : 0;
        if (opening is { Mostly: >= 1 } pack)
            reasons.Add(new(ReasonCode.Opens, null, null, pack.Mostly, choice.Next.Others) { Range = pack });
        else if (reds.After - (reds.Before - potted) >= 2)
            reasons.Add(new(ReasonCode.Opens, null, null, reds.After - (reds.Before - potted), choice.Next.Others));
        else if (reds.After >= 3)
            reasons.Add(new(ReasonCode.KeepsReds, null, null, reds.After));

        if (choice.Next.Pot is { } next)
        {
            var ball = after.Layout.Balls[next.Line.Slot];
            var white = after.Layout.White;
            if (ball.Ball.IsColour && Math.Abs(white.X - ball.X) > HighOrLow)
                reasons.Add(new(white.X < ball.X ? ReasonCode.High : ReasonCode.Low, ball.Ball, null, Math.Abs(white.X - ball.X)));
            var degrees = next.Cut.Degrees;
            reasons.Add(
                new(
                    degrees < Straight ? ReasonCode.Straight
                        : degrees > Steep ? ReasonCode.Steep
                        : ReasonCode.Angle,
                    ball.Ball,
                    next.Line.Pocket,
                    degrees,
                    choice.Next.Chance
                )
            );
            if (next.CueBallDistance > LongPot)
                reasons.Add(new(ReasonCode.Far, ball.Ball, null, next.CueBallDistance));
            if (choice.Next.Others > 0)
                reasons.Add(new(ReasonCode.Cover, null, null, choice.Next.Others));
            reasons.Add(
                choice.Next.Reach.Stance switch
                {
                    Stance.Natural => new(ReasonCode.NaturalStance, ball.Ball, null, 0),
                    Stance.Rest => new(ReasonCode.NeedsRest, ball.Ball, null, choice.Next.Reach.ErrorFactor),
                    _ => new(ReasonCode.Stretch, ball.Ball, null, choice.Next.Reach.ErrorFactor),
                }
            );
            var toCushion = Cushions.Clearance(white.At);
            if (toCushion < TightOnCushion)
                reasons.Add(new(ReasonCode.OnCushion, null, null, toCushion));
        }
        Paced(reasons, shot);
        return reasons;
    }

    /// <summary>Ways of balls that were blocked and are open now; the most valuable two.</summary>
    private static void Freed(
        List<Reason> reasons,
        Situation before,
        Situation after,
        Choice choice,
        PotLines linesBefore,
        PotLines linesAfter
    )
    {
        var freed = new List<Reason>();
        PotLines? withoutPotted = null;
        foreach (var line in linesAfter.Lines)
        {
            var ball = linesAfter.BallIn(line.Slot);
            if (!line.IsOpen || ball == choice.Nominated)
                continue;
            var was = before.Layout.SlotOf(ball);
            foreach (var old in linesBefore.Lines)
                if (old.Slot == was && old.Pocket == line.Pocket && !old.IsOpen && (ball.IsColour || !linesBefore.IsFree(was)))
                    freed.Add(new(CodeOf(ball, line.Pocket), ball, line.Pocket, Values.Of(ball)));
        }

        // Open with the potted ball gone and all others where they were: its going was enough.
        ReasonCode CodeOf(Ball ball, Pocket pocket)
        {
            var left = withoutPotted ??= linesBefore.Without(choice.Pot.Slot);
            foreach (var line in left.Lines)
                if (line.IsOpen && line.Pocket == pocket && left.BallIn(line.Slot) == ball)
                    return ReasonCode.Frees;
            return ReasonCode.KnocksFree;
        }
        reasons.AddRange(freed.OrderByDescending(f => f.Amount).DistinctBy(f => f.Ball).Take(2));
    }

    /// <summary>Balls that the white has run into, and how far they went.</summary>
    private static void Moved(List<Reason> reasons, Situation before, Situation after, Choice choice)
    {
        foreach (var slot in choice.Route.Balls.Distinct())
        {
            var (was, now) = (before.Layout.Balls[slot], after.Layout.SlotOf(before.Layout.Balls[slot].Ball));
            if (now < 0 || was.Ball == choice.Nominated)
                continue;
            var by = was.At.DistanceTo(after.Layout.Balls[now].At);
            if (by > WorthMoving)
                reasons.Add(new(ReasonCode.Moves, was.Ball, null, by));
        }
    }

    private static void Paced(List<Reason> reasons, PlanShot shot)
    {
        var (path, area, (longer, shorter)) = (shot.Drawing.WhitePath, shot.Drawing.Area, shot.Cover);
        if (path.Count > 1 && area.Count > 0)
        {
            // How far back along its way the white was already in the good area.
            var (along, at) = (0.0, path.Count - 1);
            while (at > 0 && Contours.Contains(area, path[at - 1].At))
            {
                along += path[at].At.DistanceTo(path[at - 1].At);
                at--;
            }
            if (along > AlongEnough)
                reasons.Add(new(ReasonCode.ComesAlong, null, null, along));
        }
        if (!longer.Scores || !shorter.Scores)
            return;
        var moves = longer.White.DistanceTo(shorter.White) / 2;
        if (shot.Choice.Route.Cushions.Count > 0 && moves < HoldsWell)
            reasons.Add(new(ReasonCode.CushionHolds, null, null, moves));
        else if (moves > PaceMatters)
            reasons.Add(new(ReasonCode.PaceTells, null, null, moves));
    }
}
