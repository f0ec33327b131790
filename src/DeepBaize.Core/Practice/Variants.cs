using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Practice;

/// <summary>A step made easier or harder.</summary>
/// <param name="Nearer">How much nearer the white is to the ball than it was, m; negative: farther.</param>
/// <param name="Straighter">By how much less the cut is, degrees; negative: thinner.</param>
/// <param name="Wider">So many times as wide the areas are.</param>
/// <param name="Done">What the player makes of it.</param>
public sealed record Variant(Step Step, double Nearer, double Straighter, double Wider, Estimate Done);

/// <summary>
/// Makes a step easier or harder until about seven in ten succeed: what is practised should mostly go well, and not always. Common
/// practice, no source.
/// </summary>
public static class Variants
{
    public const double Wanted = 0.7;

    /// <summary>Half-way so many times between too easy and too hard.</summary>
    private const int Halvings = 6;

    /// <summary>Nearer than this to the ball there is no room for the bridge; m.</summary>
    private const double NearestToBall = 0.15;

    /// <returns>The one at which the player succeeds as often as is wanted, or as near to it as can be; null if nothing can be changed.</returns>
    /// <exception cref="InputException">The step cannot be played.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Variant? For(Step step, Player player, TableShape shape, Workers workers)
    {
        var asItIs = Outlook.Quickly(step, player, shape, workers);
        var isEasier = asItIs < Wanted;
        var (easy, hard) = (0.0, 1.0);
        Changed? best = null;
        var bestOff = double.PositiveInfinity;
        for (var i = 0; i < Halvings; i++)
        {
            var amount = i == 0 ? 1 : (easy + hard) / 2;
            var share = Change(step, isEasier ? amount : -amount, shape) is { } changed
                ? Try(changed, amount)
                : (double?)null;
            // The more is changed, the farther from what was there; what cannot be laid is too much.
            if (share is null || isEasier == share > Wanted)
                hard = amount;
            else
                easy = amount;
        }
        if (best is not { } found)
            return null;
        return new(found.Step, found.Nearer, found.Straighter, found.Wider, Outlook.Of(found.Step, player, shape, workers).Done);

        double? Try(Changed changed, double amount)
        {
            var share = Outlook.Quickly(changed.Step, player, shape, workers);
            var off = Math.Abs(share - Wanted) + 0.01 * amount;
            if (off < bestOff)
                (best, bestOff) = (changed, off);
            return share;
        }
    }

    /// <summary>Changed by a given amount: 1 as easy as is sensible, −1 as hard.</summary>
    /// <returns>Null if the balls cannot lie so, or nothing can be changed.</returns>
    public static Variant? By(Step step, double amount, Player player, TableShape shape, Workers workers) =>
        Change(step, amount, shape) is { } changed
            ? new(changed.Step, changed.Nearer, changed.Straighter, changed.Wider, Outlook.Of(changed.Step, player, shape, workers).Done)
            : null;

    private readonly record struct Changed(Step Step, double Nearer, double Straighter, double Wider);

    /// <param name="amount">1 as easy as is sensible, −1 as hard.</param>
    /// <returns>Null if the balls cannot lie so.</returns>
    private static Changed? Change(Step step, double amount, TableShape shape)
    {
        // Twice as wide at most, or half.
        var wider = Math.Pow(2, amount);
        var demands = step.Demands.Select(d => d with { Area = d.Area?.Widened(wider), Within = d.Within * wider }).ToList();
        var hasWidth = step.Demands.Any(d => d.Area is not null || d.Within is not null);
        var (balls, nearer, straighter) = MoveWhite(step, amount, shape);
        if (balls is null || (!hasWidth && nearer == 0 && straighter == 0))
            return null;
        var changed = step with { Balls = balls, Demands = demands };
        try
        {
            changed.LayoutOn(shape);
        }
        catch (InputException)
        {
            return null;
        }
        return new(changed, nearer, straighter, hasWidth ? wider : 1);
    }

    /// <summary>Half as near, or half as far again, and a third of the cut taken off or put on.</summary>
    private static (IReadOnlyList<LaidBall>? Balls, double Nearer, double Straighter) MoveWhite(Step step, double amount, TableShape shape)
    {
        var layout = step.LayoutOn(shape);
        if (step.PotIn(layout) is not { Through: < 0, Off: null } pot)
            return (step.Balls, 0, 0);
        var cut = Cut.Of(layout, pot, shape);
        var (ball, white) = (layout.Balls[pot.Slot].At, layout.White.At);
        var ghost = ball - 2 * Dimensions.BallRadius * Angle.FromDegrees(cut.PotDegrees).Unit;
        var back = white - ghost;
        var distance = Math.Max(NearestToBall, back.Length * (1 - 0.5 * amount));
        // Towards the straight line behind the ball, by a third of the cut.
        var turned = Angle.FromDegrees(back.Direction.Degrees + cut.CutDegrees / 3 * amount);
        var place = ghost + distance * turned.Unit;
        var laid = step.Balls.Select(b => b.Id == "white" ? new LaidBall("white", place.X, place.Y) : b).ToList();
        var now = Cut.Of((step with { Balls = laid }).TryLayout(shape) ?? layout, pot, shape);
        if (!now.CanBeAimed)
            return (null, 0, 0);
        return (laid, back.Length - distance, Math.Abs(cut.CutDegrees) - Math.Abs(now.CutDegrees));
    }

    private static Layout? TryLayout(this Step step, TableShape shape)
    {
        try
        {
            return step.LayoutOn(shape);
        }
        catch (InputException)
        {
            return null;
        }
    }
}
