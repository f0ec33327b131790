using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>Lays out snookers that have a way out by a given number of cushions.</summary>
public static class SnookerDraw
{
    /// <summary>Largest number of cushions that a way out may need.</summary>
    public const int MostCushions = 3;
    private const double AimStep = 0.5;

    /// <summary>By the number of cushions: fast enough to get there.</summary>
    private static readonly double[] Paces = [4, 4.8, 5.6];

    /// <summary>A way out that is narrower than so many steps of aim nobody can practise.</summary>
    private const int NarrowestWay = 2;
    private const int Tries = 2000;

    /// <param name="seed">Seed of the random numbers; equal seeds give equal snookers.</param>
    /// <param name="cushions">By how many cushions the way out goes, 1 to 3.</param>
    /// <exception cref="InputException">Another number of cushions; or no such snooker was found.</exception>
    public static Step Of(int seed, int cushions, TableShape shape, CancellationToken cancel = default)
    {
        var checks = new Checks();
        checks.Range("cushions", cushions, 1, MostCushions);
        checks.ThrowIfAny();
        var random = new Random(seed * 31 + cushions);
        var (simulator, record) = (new Simulator(shape, Simulator.Coarse), new ShotRecord());
        for (var i = 0; i < Tries; i++)
        {
            cancel.ThrowIfCancellationRequested();
            if (Lay(random, shape) is { } step && WayOut(step, cushions, shape, simulator, record) is { } aim)
                return step with { Label = Words[cushions - 1], Stroke = new(Aim: aim, Pace: Paces[cushions - 1]) };
        }
        throw new InputException("seed", "No snooker was found with these settings.", "another seed");
    }

    private static readonly string[] Words = ["off one cushion", "off two cushions", "off three cushions"];

    /// <summary>A red, the white, and a colour before it that hides the whole red.</summary>
    private static Step? Lay(Random random, TableShape shape)
    {
        const double edge = 0.15;
        Vec2 Place() =>
            new(edge + random.NextDouble() * (Dimensions.Length - 2 * edge), edge + random.NextDouble() * (Dimensions.Width - 2 * edge));
        var (white, red) = (Place(), Place());
        if (white.DistanceTo(red) < 0.8)
            return null;
        var colour = Ball.Colours[random.Next(Ball.Colours.Count)];
        // So near that it covers more than the red does.
        var before = white + (2 * Dimensions.BallRadius + 0.02 + 0.1 * random.NextDouble()) * (red - white).Unit;
        var step = new Step
        {
            Label = "",
            Balls = [Rounded("white", white), Rounded("red-1", red), Rounded(colour.Id, before)],
            Demands = [new() { Kind = DemandKind.MeetsFirst, Ball = "red-1" }],
        };
        try
        {
            step.LayoutOn(shape);
            return step;
        }
        catch (InputException)
        {
            return null;
        }
    }

    private static LaidBall Rounded(string id, Vec2 at) => new(id, Math.Round(at.X, 3), Math.Round(at.Y, 3));

    /// <summary>The middle of the widest run of aims that reach the red so; null if it is seen, or there is none.</summary>
    private static double? WayOut(Step step, int cushions, TableShape shape, Simulator simulator, ShotRecord record)
    {
        var layout = step.LayoutOn(shape);
        var red = layout.SlotOf(Ball.Red(1));
        var (width, widest, middle) = (0, NarrowestWay - 1, (double?)null);
        for (var aim = -180.0; aim < 180; aim += AimStep)
        {
            var stroke = new Stroke(aim, 0, 0, Paces[cushions - 1], Player.Default.NaturalElevation);
            stroke.Play(simulator, layout, record);
            var met = Contacts.FirstSlot(record) == red ? CushionsBefore(record) : -1;
            if (met == 0)
                return null;
            width = met == cushions ? width + 1 : 0;
            if (width > widest)
                (widest, middle) = (width, Math.Round(aim - (width - 1) * AimStep / 2, 2));
        }
        return middle;
    }

    private static int CushionsBefore(ShotRecord record) =>
        record.Events.TakeWhile(e => !e.IsOfWhiteWithBall).Count(e => e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw });
}
