using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What the planner is measured against: the easiest pot that is on, rolled in plain and softly, without a thought of the next.
/// </summary>
public static class PlainPolicy
{
    // Of the cue, m/s: the softest that is tried; and by how much harder than just reaches the ball is struck, m/s at the most.
    private const double Softest = 0.75,
        Harder = 1.17,
        Hardest = 5.1;

    public static BreakResult PlayBreak(
        Situation from,
        Player player,
        TableShape shape,
        int seed,
        Action<Situation, Intention, PlayedStroke>? watch = null
    )
    {
        var random = new Random(seed);
        return BreakPlay.Play(from, s => Choose(s, player, shape), player.Skill, shape, _ => StandardDraws.Draw(random), watch);
    }

    private static double HarderThan(double pace) => Pace.OfCueSpeed(Math.Min(Hardest, Harder * Pace.CueSpeed(pace)));

    private static Intention? Choose(Situation situation, Player player, TableShape shape)
    {
        var layout = situation.Layout;
        var on = situation.OnSlots().ToHashSet();
        PotOption? best = null;
        var lines = new PotLines(layout, shape);
        var likely = new List<QuickPot>();
        foreach (var line in lines.Lines)
            if (on.Contains(line.Slot) && lines.From(line, layout.White.At, player.Skill) is { } pot)
                likely.Add(pot);
        // The few that look easiest, judged as the desk judges them, at the softest pace that gets the ball there.
        foreach (var pot in likely.OrderByDescending(p => p.Chance).Take(4))
        {
            var option = TableReading.ReadOne(
                layout,
                new(pot.Line.Slot, pot.Line.Pocket),
                new(0, 0, 0, Pace.OfCueSpeed(Softest), player.NaturalElevation),
                player,
                shape
            );
            if (option.AimDegrees is not null && option.Chance.Value > (best?.Chance.Value ?? 0))
                best = option;
        }
        // A little more than just reaches it.
        return best is null
            ? null
            : new(
                best.Stroke with
                {
                    Pace = HarderThan(best.Pace),
                },
                best.Cut.Pot,
                layout.Balls[best.Cut.Pot.Slot].Ball,
                best.Reach.ErrorFactor
            );
    }
}
