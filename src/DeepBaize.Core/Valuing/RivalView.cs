using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Valuing;

/// <summary>A way of the other player's to a pocket: open, or closed and by what.</summary>
/// <param name="Chance">0 if it is closed.</param>
/// <param name="Blocker">
/// A ball in the way of the object ball, or of the white; null if the way is open, or it is the angle that forbids it.
/// </param>
public sealed record RivalLine(PotLine Line, Ball Ball, double Chance, Ball? Blocker);

/// <summary>One resting position seen from the other side.</summary>
/// <param name="Lines">Of the balls on: the likeliest that are open, then those that only a ball in the way closes.</param>
/// <param name="Special">Plants and doubles that are on.</param>
public sealed record RivalView(Outlook Leave, Situation Situation, IReadOnlyList<RivalLine> Lines, IReadOnlyList<PotOption> Special)
{
    private const int MostLines = 10,
        MostSpecial = 4;
    private const double WorthShowing = 0.05;

    /// <param name="situation">With the other player at the table.</param>
    public static RivalView Of(Situation situation, Player rival, TableShape shape, Workers workers)
    {
        var lines = new PotLines(situation.Layout, shape);
        var leave = new PositionJudge(rival, shape).Of(situation, lines);
        if (situation.Frame.IsOver || situation.Frame.InHand)
            return new(leave, situation, [], []);
        var white = situation.Layout.White.At;
        var found = new List<RivalLine>();
        foreach (var line in lines.Lines)
        {
            var ball = lines.BallIn(line.Slot);
            if (!situation.Frame.MayPlay(ball))
                continue;
            if (!line.IsOpen)
                found.Add(new(line, ball, 0, lines.BallIn(line.Blocker)));
            else if (lines.From(line, white, rival.Skill) is { } pot)
            {
                if (pot.Chance > WorthShowing)
                    found.Add(new(line, ball, pot.Chance, null));
            }
            else if (lines.InTheWhitesWay(line, white) is { } way)
                found.Add(new(line, ball, 0, way));
        }
        // Doubles and plants are judged by the desk's own reading, at a medium pace.
        List<PotOption> special =
        [
            .. TableReading
                .Indirect(situation.Layout, new(0, 0, 0, Pace.Medium, rival.NaturalElevation), rival, shape, workers, situation.Frame.IsOn)
                .Take(MostSpecial),
        ];
        return new(leave, situation, [.. found.OrderByDescending(l => l.Chance).Take(MostLines)], special);
    }
}
