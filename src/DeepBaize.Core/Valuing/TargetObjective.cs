using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// The chance that this break reaches what it is played for: a score or a clearance, with a little for each point, so that a plan goes on
/// once it is reached. Once the turn has passed nothing more can come of it.
/// </summary>
/// <param name="from">The frame in which the question is asked.</param>
/// <param name="me">The player who asks, 0 or 1.</param>
/// <param name="evaluation">Evaluation of positions for the player, for the target.</param>
public sealed class TargetObjective(Frame from, int me, Evaluation evaluation) : IObjective
{
    /// <inheritdoc/>
    public string Unit => "target";

    /// <inheritdoc/>
    public double Point => 0.01;

    /// <inheritdoc/>
    public double ModelErrorOf(double value) => 2 * 0.06 * Math.Sqrt(Math.Max(0, value * (1 - value)));

    /// <inheritdoc/>
    public double Terminal(Frame frame) => evaluation.GainOf(from, frame, me, isCleared: frame.Winner == me);

    /// <inheritdoc/>
    public double Of(Frame frame, in Outlook outlook) =>
        frame.IsOver ? Terminal(frame)
        : frame.AwaitsLot ? evaluation.GainOf(from, frame, me, isCleared: true)
        : evaluation.GainOf(from, frame, me, isCleared: false) + (frame.Turn == me ? outlook.Best.Value : 0);

    /// <inheritdoc/>
    public double AfterMiss(Frame frame) => evaluation.GainOf(from, frame, me, isCleared: false);
}
