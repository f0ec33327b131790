using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Practice;

/// <summary>A step made easier or harder.</summary>
/// <param name="Nearer">How much nearer the white is to the ball than it was, m; negative: farther.</param>
/// <param name="Straighter">By how much less the cut is, degrees; negative: thinner.</param>
/// <param name="Wider">Factor by which the areas are wider.</param>
/// <param name="Done">What the player makes of it.</param>
public sealed record Variant(Step Step, double Nearer, double Straighter, double Wider, Estimate Done);

/// <summary>
/// Makes a step easier or harder until about seven in ten succeed: what is practised should mostly go well, and not always. Common
/// practice, no source.
/// </summary>
public static class Variants
{
    /// <summary>Share of attempts that an easier version should bring.</summary>
    public const double Wanted = 0.7;

    /// <summary>Number of bisections between too easy and too hard.</summary>
    private const int Halvings = 6;

    /// <summary>Nearer than this to the ball there is no room for the bridge; m.</summary>
    private const double NearestToBall = 0.15;

    /// <returns>The one at which the player succeeds about as often as is wanted; null if nothing can be changed.</returns>
    /// <exception cref="InputException">The step cannot be played.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Variant? For(Step step, Player player, TableShape shape, Workers workers)
    {
        var isEasier = ExpectedResult.Quickly(step, player, shape, workers) < Wanted;
        var best = Ways.Select(way => Closest(way)).OfType<(Changed Changed, double Off)>().OrderBy(c => c.Off).ToList();
        return best.Count == 0 ? null : VariantOf(best[0].Changed, player, shape, workers);

        // Half-way again and again between what is too little and what is too much, or cannot be laid.
        (Changed, double)? Closest(Way way)
        {
            var (little, much) = (0.0, 1.0);
            (Changed Changed, double Off)? best = null;
            for (var i = 0; i < Halvings; i++)
            {
                var amount = i == 0 ? 1 : (little + much) / 2;
                var changed = way(step, isEasier ? amount : -amount, shape);
                var share = changed is { } c ? ExpectedResult.Quickly(c.Step, player, shape, workers) : (double?)null;
                if (share is { } s && changed is { } found && Math.Abs(s - Wanted) + 0.01 * amount is var off && off < (best?.Off ?? 1))
                    best = (found, off);
                if (share is null || isEasier == share > Wanted)
                    much = amount;
                else
                    little = amount;
            }
            return best;
        }
    }

    private static Variant VariantOf(Changed c, Player player, TableShape shape, Workers workers) =>
        new(c.Step, c.Nearer, c.Straighter, c.Wider, ExpectedResult.Of(c.Step, player, shape, workers).Done);

    /// <summary>Changed by a given amount: 1 as easy as is sensible, −1 as hard.</summary>
    /// <returns>Null if the balls cannot lie so, or nothing can be changed.</returns>
    public static Variant? By(Step step, double amount, Player player, TableShape shape, Workers workers) =>
        Ways.Select(way => way(step, amount, shape)).FirstOrDefault(c => c is not null) is { } changed
            ? VariantOf(changed, player, shape, workers)
            : null;

    private readonly record struct Changed(Step Step, double Nearer, double Straighter, double Wider);

    /// <summary>As easy as is sensible: how much wider places are, and which shares of the distance and the cut are left.</summary>
    private const double Widest = 2.5,
        Nearest = 0.35,
        Straightest = 0.5;

    /// <param name="amount">1 as easy as is sensible, −1 as hard.</param>
    /// <returns>Null if the balls cannot lie so, or nothing can be changed in this way.</returns>
    private delegate Changed? Way(Step step, double amount, TableShape shape);

    /// <summary>Wider places alone; or the white nearer and straighter, with the places about where it then stops.</summary>
    private static readonly Way[] Ways =
    [
        (step, amount, shape) => Laid(HasWidth(step) ? Wider(step, Math.Pow(Widest, amount)) : null, shape),
        (step, amount, shape) =>
        {
            // Other tasks would be others from elsewhere.
            if (step.Stroke.Pot is null || !step.Demands.All(d => d.Kind is DemandKind.Pot or DemandKind.WhiteIn))
                return null;
            var wider = HasWidth(step) ? Wider(step, Math.Pow(Widest, amount)) : new Changed(step, 0, 0, 1);
            return Laid(Nearer(wider.Step, amount, shape), shape) is { } moved
                ? moved with
                {
                    Step = Recentred(moved.Step, shape),
                    Wider = wider.Wider,
                }
                : null;
        },
    ];

    private static Changed? Laid(Changed? changed, TableShape shape) => changed is { } c && c.Step.TryLayout(shape) is not null ? c : null;

    /// <summary>The places for the white about where it stops now, if the stroke is played just as it is meant.</summary>
    private static Step Recentred(Step step, TableShape shape)
    {
        var layout = step.LayoutOn(shape);
        var simulator = new Simulator(shape);
        step.StrokeOn(layout, shape, Player.Default).Play(simulator, layout);
        if (!simulator.IsOnTable(0))
            return step;
        var stop = simulator.At(0);
        Area Moved(Area area)
        {
            var (dx, dy) = (stop.X - area.Middle.X, stop.Y - area.Middle.Y);
            if (area.Radius is not null)
                return area with { X = stop.X, Y = stop.Y };
            double Along(double x) => Math.Clamp(x + dx, 0, Dimensions.Length);
            double Across(double y) => Math.Clamp(y + dy, 0, Dimensions.Width);
            return Area.Box(Along(area.X), Across(area.Y), Along(area.ToX!.Value), Across(area.ToY!.Value));
        }
        return step with { Demands = [.. step.Demands.Select(d => d.Kind == DemandKind.WhiteIn ? d with { Area = Moved(d.Area!) } : d)] };
    }

    private static bool HasWidth(Step step) =>
        step.Demands.Any(d => d.Area is not null || d.Within is not null || d.Kind == DemandKind.Gate);

    private static Changed Wider(Step step, double factor)
    {
        var balls = step.Balls;
        foreach (var gate in step.Demands.Where(d => d.Kind == DemandKind.Gate))
            balls = Parted(balls, gate.Ball!, gate.Other!, factor);
        var demands = step.Demands.Select(d => d with { Area = d.Area?.Widened(factor), Within = d.Within * factor });
        return new(step with { Balls = balls, Demands = [.. demands] }, 0, 0, factor);
    }

    /// <summary>The posts of a gate, so that the room beside a ball in its middle is so many times as wide.</summary>
    private static List<LaidBall> Parted(IReadOnlyList<LaidBall> balls, string one, string other, double factor)
    {
        Vec2 Of(string id) => balls.First(b => b.Id == id) is var ball ? new(ball.X, ball.Y) : default;
        var (a, b) = (Of(one), Of(other));
        var (middle, half) = (0.5 * (a + b), 0.5 * (b - a));
        var wide = (2 * Dimensions.BallRadius + factor * (half.Length - 2 * Dimensions.BallRadius)) * half.Unit;
        LaidBall At(string id, Vec2 place) => new(id, place.X, place.Y);
        return
        [
            .. balls.Select(ball =>
                ball.Id == one ? At(one, middle - wide)
                : ball.Id == other ? At(other, middle + wide)
                : ball
            ),
        ];
    }

    /// <summary>The white nearer to the ball, and more nearly behind it.</summary>
    private static Changed? Nearer(Step step, double amount, TableShape shape)
    {
        var layout = step.LayoutOn(shape);
        if (step.PotIn(layout) is not { Through: < 0, Off: null } pot)
            return null;
        var cut = Cut.Of(layout, pot, shape);
        var (ball, white) = (layout.Balls[pot.Slot].At, layout.White.At);
        var ghost = ball - 2 * Dimensions.BallRadius * Angle.FromDegrees(cut.PotDegrees).Unit;
        var back = white - ghost;
        var distance = Math.Max(NearestToBall, back.Length * Math.Pow(Nearest, amount));
        var left = Math.Pow(Straightest, amount);
        // From straight behind the ball by what is left of the cut.
        var turned = Angle.FromDegrees(back.Direction.Degrees + cut.CutDegrees * (1 - left));
        var place = ghost + distance * turned.Unit;
        var moved = step with { Balls = [.. step.Balls.Select(b => b.Id == "white" ? new LaidBall("white", place.X, place.Y) : b)] };
        if (moved.TryLayout(shape) is not { } laid || Cut.Of(laid, pot, shape) is not { CanBeAimed: true } now)
            return null;
        return new(moved, back.Length - distance, Math.Abs(cut.CutDegrees) - Math.Abs(now.CutDegrees), 1);
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
