using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// The chance to win the frame. The frame and the table as it lies are taken as they are; what follows is the game of visits of
/// <see cref="FrameChances"/>. Exact once the frame is over; the other player's chance is its complement.
/// </summary>
public sealed class FrameObjective : IObjective
{
    private readonly int _me;
    private readonly FrameChances _chances;

    /// <param name="me">The player whose chance it is, 0 or 1.</param>
    /// <param name="player">That player.</param>
    /// <param name="rival">The other one.</param>
    public FrameObjective(int me, Player player, Player rival)
        : this(me, VisitSkill.Of(player), VisitSkill.Of(rival)) { }

    /// <summary>With the figures of the game of visits themselves, for their fit.</summary>
    public FrameObjective(int me, VisitSkill mine, VisitSkill theirs)
    {
        (_me, _chances) = (me, FrameChances.Of(mine, theirs));
    }

    /// <inheritdoc/>
    public string Unit => "win";

    /// <inheritdoc/>
    /// <remarks>At level scores with half of the balls left a lead of ten points is worth about four in a hundred.</remarks>
    public double Point => 0.004;

    /// <summary>Of a value of one half; it goes to 0 with the value's own variance.</summary>
    private const double ErrorAtHalf = 0.06;

    /// <inheritdoc/>
    public double ModelErrorOf(double value) => 2 * ErrorAtHalf * Math.Sqrt(Math.Max(0, value * (1 - value)));

    /// <inheritdoc/>
    public double Terminal(Frame frame) => frame.Winner == _me ? 1 : 0;

    /// <inheritdoc/>
    public double Of(Frame frame, in Outlook outlook)
    {
        if (frame.IsOver)
            return Terminal(frame);
        var left = FrameChances.LeftOf(frame);
        // Either may be drawn to play first at the black on its spot again.
        if (frame.AwaitsLot)
            return (_chances.Respotted(0) + 1 - _chances.Respotted(1)) / 2;
        var chance = _chances.Of(Who(frame), left, frame.Lead, NextOf(frame, outlook, left), outlook.Foul, outlook.LeftBySafety);
        return Mine(frame, Calibrated(chance, left));
    }

    /// <inheritdoc/>
    public double AfterMiss(Frame frame)
    {
        if (frame.IsOver)
            return Terminal(frame);
        var who = Who(frame);
        var left = FrameChances.LeftOf(frame);
        return Mine(frame, Calibrated(_chances.AfterMissOf(1 - who, left, frame.Lead), left));
    }

    /// <summary>Slope of the logits by which what is reckoned agrees with who won, in frames of self-play (bench -- frames fit).</summary>
    private const double Slope = 1.15;

    /// <summary>
    /// The game of visits reckons a little too near to one half; with the black alone there is nothing left that it does not know. 0, one
    /// half and 1 stay, and the two players' chances still add up to 1.
    /// </summary>
    private static double Calibrated(double chance, int left) =>
        left <= 1 || chance is <= 0 or >= 1 ? chance : 1 / (1 + Math.Pow((1 - chance) / chance, Slope));

    private int Who(Frame frame) => frame.Turn == _me ? 0 : 1;

    private double Mine(Frame frame, double chance) => frame.Turn == _me ? chance : 1 - chance;

    private NextPot NextOf(Frame frame, in Outlook outlook, int left)
    {
        var best = outlook.Best;
        if (best.Chance <= 0)
            return default;
        // A free ball counts as the ball on, and leaves that where it is (rule 12).
        var after =
            frame.FreeBall && !best.IsOn ? (frame.On == BallOn.Red ? left + 1 : left)
            : best.LeavesSpotted ? FrameChances.OnSpots(left - 1)
            : left - 1;
        return new(best.Chance, best.Points, after, best.Onward);
    }
}
