using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>
/// The chance to win a frame. The stroke to be played and what it leaves are taken as they are; all that follows is a game of two players
/// who take turns at the balls in their order, each potting the next as often as an ordinary one at his skill. It is worked out exactly,
/// for every number of balls left and every lead. See docs/safety.md, "The chance to win".
/// </summary>
public sealed class WinChance
{
    // Common practice, no source. The first pot of a visit is on, and goes in, so much less often than the next in a break; and of the
    // snookers that a player lays when nothing else helps, so many bring a penalty.
    private const double FirstPot = 0.5,
        SnookerPays = 0.05;

    /// <summary>What a colour after a red makes, in points, as players take them: mostly black and pink.</summary>
    private const int ColourAfterRed = 6;

    private const int Sweeps = 200;
    private const double Settled = 1e-7;

    private readonly int _me;
    private readonly double[] _next;

    /// <summary>Points of the balls left, by how many are left after it.</summary>
    private readonly int[] _points;
    private readonly bool[] _isColourAfterRed;
    private readonly int _most;

    /// <summary>
    /// The chance of player 0 (me) or 1 to win, with so many balls left and so large a lead of his: as he comes to the table, and in the
    /// midst of a break.
    /// </summary>
    private readonly double[,][] _visit,
        _inBreak;

    /// <param name="from">The frame that the stroke is played in: what follows has no more balls than this.</param>
    public WinChance(Frame from, Player player, Player rival)
    {
        _me = from.Turn;
        _next = [OrdinaryOf(player), OrdinaryOf(rival)];
        var reds = Enumerable.Range(0, from.Reds).SelectMany(_ => (int[])[Values.Red, ColourAfterRed]);
        List<int> order = from.Exercise is { } exercise
            ? [.. exercise.Balls.Select(Values.Of)]
            : [.. from.On == BallOn.Colour ? [ColourAfterRed] : Array.Empty<int>(), .. reds, .. from.Colours.Select(Values.Of)];
        var colours = from.Exercise is null ? from.Colours.Count : order.Count;
        _points = [0, .. Enumerable.Reverse(order)];
        _isColourAfterRed = [.. Enumerable.Range(0, order.Count + 1).Select(n => n > colours && (n - colours) % 2 == 1)];
        _most = order.Sum() + Math.Abs(from.Lead) + 8 * Values.LeastPenalty;
        _visit = new double[2, order.Count + 1][];
        _inBreak = new double[2, order.Count + 1][];
        for (var left = 0; left <= order.Count; left++)
            Solve(left);
    }

    private static double OrdinaryOf(Player player) => new Evaluation(player, PlanPreferences.Default).Ordinary;

    /// <summary>For the player who was at the table at first: the chance after a stroke.</summary>
    /// <param name="pot">The chance of the pot that it leaves, for whoever is at the table then.</param>
    /// <param name="foul">The chance that he fails to hit a ball on.</param>
    public double After(PlayedStroke played, double pot, double foul = 0) => Of(played.Leaves.Frame, pot, foul);

    /// <summary>For the player who was at the table at first: in a frame that came of it.</summary>
    /// <inheritdoc cref="After"/>
    public double Of(Frame frame, double pot, double foul = 0)
    {
        if (frame.IsOver)
            return frame.Winner == _me ? 1 : 0;
        if (frame.AwaitsLot)
            return 0.5;
        var who = frame.Turn == _me ? 0 : 1;
        var balls = frame.Exercise?.Balls.Count ?? (frame.On == BallOn.Colour ? 1 : 0) + 2 * frame.Reds + frame.Colours.Count;
        var left = Math.Min(_points.Length - 1, balls);
        if (left == 0)
            return who == 0 ? AtEnd(frame.Lead) : 1 - AtEnd(frame.Lead);
        var chance = (1 - foul) * Best(who, left, frame.Lead, pot);
        if (foul > 0)
            chance +=
                foul * (left == 1 ? AtEnd(frame.Lead - Values.Black) : 1 - At(_visit, 1 - who, left, frame.LeastPenalty - frame.Lead));
        return who == 0 ? chance : 1 - chance;
    }

    private static double AtEnd(int lead) =>
        lead > 0 ? 1
        : lead < 0 ? 0
        : 0.5;

    private void Solve(int left)
    {
        for (var who = 0; who < 2; who++)
            (_visit[who, left], _inBreak[who, left]) = (new double[2 * _most + 1], new double[2 * _most + 1]);
        for (var sweep = 0; sweep < Sweeps; sweep++)
        {
            var change = 0.0;
            for (var who = 0; who < 2; who++)
                for (var lead = -_most; lead <= _most; lead++)
                {
                    var chance = left == 0 ? AtEnd(lead) : Best(who, left, lead, FirstPot * _next[who]);
                    change = Math.Max(change, Math.Abs(chance - _visit[who, left][lead + _most]));
                    _visit[who, left][lead + _most] = chance;
                    _inBreak[who, left][lead + _most] = left == 0 ? AtEnd(lead) : Best(who, left, lead, _next[who]);
                }
            if (change < Settled)
                break;
        }
    }

    /// <summary>The better of going for the pot and of laying a snooker.</summary>
    private double Best(int who, int left, int lead, double pot)
    {
        // With nothing but the black left, a lead that it cannot turn round is the frame (rule 4), and so is a penalty.
        var blackOnly = left == 1;
        if (blackOnly && Math.Abs(lead) > Values.Black)
            return AtEnd(lead);
        // A colour that is missed after a red is out of its turn.
        var afterMiss = _isColourAfterRed[left] ? left - 1 : left;
        double Pass(int by) => 1 - At(_visit, 1 - who, afterMiss, -by);
        var attempt = pot * At(_inBreak, who, left - 1, lead + _points[left]) + (1 - pot) * Pass(lead);
        var paid = lead + (blackOnly ? Values.Black : Values.LeastPenalty);
        var snooker = SnookerPays * (blackOnly ? AtEnd(paid) : At(_visit, who, afterMiss, paid)) + (1 - SnookerPays) * Pass(lead);
        return Math.Max(attempt, snooker);
    }

    private double At(double[,][] table, int who, int left, int lead) => table[who, left][Math.Clamp(lead, -_most, _most) + _most];
}
