using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Reading;

/// <summary>A pot played with some side: what the side costs and saves.</summary>
/// <param name="SideTips">+ right-hand.</param>
/// <param name="IsHelping">Turns the object ball the way it is cut; false for plain ball and for the other side.</param>
public sealed record SideChoice(double SideTips, bool IsHelping, Estimate Chance, double AimDegrees, Arrival Arrival, Allowance Allowance)
{
    /// <summary>What is called a touch, tips.</summary>
    public const double Touch = 0.25;

    /// <summary>Plain, a touch of helping side, and a touch of the other; those for which there is an aim.</summary>
    public static IReadOnlyList<SideChoice> Of(Table.Layout layout, Pot pot, Stroke stroke, Player player, Table.TableShape shape)
    {
        var choices = new List<SideChoice>();
        var cut = Cut.Of(layout, pot, shape);
        // Right-hand side drags the front of the cue ball, and what it meets, to the left.
        var helping = cut.CutDegrees >= 0 ? 1 : -1;
        foreach (var side in (double[])[0, helping * Touch, -helping * Touch])
        {
            var played = stroke with { SideTips = side };
            if (Tip.Margin(side, stroke.HeightTips) < 0)
                continue;
            var option = TableReading.ReadOne(layout, pot, played, player, shape);
            if (!option.IsAimed)
                continue;
            played = option.Stroke;
            var aim = played.AimDegrees;
            var trial = new PotTrial(layout, cut, shape);
            trial.Miss(played);
            if (Arrival.Of(trial.Record, played.ToStrike(), shape) is { } arrival)
                choices.Add(new(side, side * helping > 0, option.Chance, aim, arrival, Allowance.Of(cut, arrival, aim)));
        }
        return choices;
    }
}
