using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Decide;

/// <summary>The chance of the player at the table to win the frame, before a stroke is chosen.</summary>
/// <param name="Win">0–1, with the error of the strokes by which the best pot was judged.</param>
/// <param name="ModelError">Standard error of what is reckoned, from calibration; 0 if it is exact.</param>
/// <param name="IsExact">Whether the rules alone settle it.</param>
public sealed record FrameChance(Estimate Win, double ModelError, bool IsExact)
{
    /// <summary>Strokes by which the chance of the best pot is told (<see cref="TableReading.BestChance"/>).</summary>
    private const int Strokes = 64;

    /// <summary>Returns the chance from a table.</summary>
    /// <exception cref="InputException">An exercise, which nobody wins.</exception>
    public static FrameChance Of(Situation from, Player player, Player rival, TableShape shape)
    {
        var frame = from.Frame;
        if (frame.Repeats || frame.Exercise is not null)
            throw new InputException("content.frame", "An exercise is not won.", "a frame");
        var objective = new FrameObjective(frame.Turn, player, rival);
        if (frame.IsOver)
            return new(Estimate.Exact(objective.Terminal(frame)), 0, true);
        var judge = new PositionJudge(frame.Turn, player, rival, shape, PlanPreferences.Default);
        var lines = new PotLines(from.Layout, shape);
        var outlook = judge.Of(from, lines);
        double With(double chance) => objective.Of(frame, outlook.WithChance(Math.Clamp(chance, 0, 1), frame.ValueOn));
        var pot = judge.BestChance(from, lines, outlook);
        var win = With(pot);
        var error = Math.Sqrt(pot * (1 - pot) / Strokes);
        return new(new(win, Math.Abs(With(pot + error) - With(pot - error)) / 2, Strokes), objective.ModelErrorOf(win), false);
    }
}
