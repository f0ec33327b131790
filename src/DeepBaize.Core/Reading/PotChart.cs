using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>A pot at one setting of the row's knob and one pace.</summary>
/// <param name="Row">Part of the pocket, −1 thick to 1 thin, or side in tips.</param>
/// <param name="Potted">Whether the ball goes in.</param>
/// <param name="End">What comes of it; null if there is no aim.</param>
public sealed record PotCell(double Row, double Pace, bool Potted, StrokeEnd? End);

/// <summary>A pot at one pace that is just missed on one side.</summary>
/// <param name="Ball">Where the object ball stops, m; null if it goes in elsewhere.</param>
/// <param name="White">Where the white stops, m; null if it goes in.</param>
public sealed record NearlyMissed(double Pace, bool IsThick, Vec2? Ball, Vec2? White);

/// <summary>A pot with another height of the tip.</summary>
/// <param name="HeightTips">+ above the centre.</param>
/// <param name="Chance">Of the pot, the other balls out of the way.</param>
/// <param name="End">What comes of it; null if there is no aim.</param>
public sealed record PotSpin(double HeightTips, Estimate Chance, StrokeEnd? End);

/// <summary>
/// Where the white of a pot goes by the part of the pocket and the pace, and by side and pace; where the ball stops if it is just missed;
/// and what screw and stun do to it. Of a thin pot that is nearly all that can be chosen.
/// </summary>
public sealed record PotChart(
    IReadOnlyList<PotCell> ByPart,
    IReadOnlyList<PotCell> BySide,
    IReadOnlyList<NearlyMissed> Missed,
    IReadOnlyList<PotSpin> Spins
)
{
    private static readonly double[] Parts = [-0.8, -0.4, 0, 0.4, 0.8],
        Sides = [-0.5, -0.25, 0, 0.25, 0.5],
        PaceSteps = [-1.5, -1, -0.5, 0, 0.5, 1, 1.5],
        Heights = [0.6, 0, -0.5, -1];

    /// <summary>Beyond the edge of what still goes in, degrees.</summary>
    private const double Beyond = 0.02;

    /// <summary>Returns the chart of a pot that is aimed at.</summary>
    /// <param name="question">With a pot; what the white is to do does not count.</param>
    public static PotChart Of(VariantQuestion question, Player player, Workers workers)
    {
        var stroke = question.Stroke;
        question = question with { KeepsAim = false };
        var paces = PaceSteps.Select(s => stroke.Pace + s).Where(p => p is >= Pace.Slowest and <= Pace.Hardest).ToList();
        (double Row, Pot Pot, Stroke Stroke)[] Rows(double[] rows, Func<double, (Pot, Stroke)> of) =>
            [.. rows.SelectMany(r => paces.Select(p => (r, of(r).Item1, of(r).Item2 with { Pace = p })))];
        var pot = question.Cut!.Value.Pot;
        var byPart = Rows(Parts, part => (pot with { Part = part }, stroke));
        var bySide = Rows([.. Sides.Where(s => StrokeKnob.Side.Allows(stroke, s))], side => (pot, stroke with { SideTips = side }));
        var cells = byPart.Concat(bySide).ToList();
        var played = workers.InParallel(cells.Count, i => Cell(question, cells[i].Row, cells[i].Pot, cells[i].Stroke));
        var missed = workers.InParallel(
            2 * paces.Count,
            i => JustMissed(question, stroke with { Pace = paces[i / 2] }, isThick: i % 2 == 0)
        );
        var heights = Heights.Where(h => StrokeKnob.Height.Allows(stroke, h)).ToList();
        var spins = workers.InParallel(heights.Count, i => WithHeight(question, stroke with { HeightTips = heights[i] }, player));
        return new([.. played.Take(byPart.Length)], [.. played.Skip(byPart.Length)], [.. missed.OfType<NearlyMissed>()], spins);
    }

    private static PotCell Cell(VariantQuestion question, double row, Pot pot, Stroke stroke)
    {
        var end = Played(question with { Cut = Cut.Of(question.Layout, pot, question.Shape) }, stroke, out var isPotted);
        return new(row, stroke.Pace, isPotted, end);
    }

    private static PotSpin WithHeight(VariantQuestion question, Stroke stroke, Player player)
    {
        var aimed = new StrokeVariants(question).AimedAnew(stroke) ?? stroke;
        var chance = TableReading.ChanceAsSet(question.Layout, question.Cut!.Value.Pot, aimed, player, question.Shape);
        return new(stroke.HeightTips, chance, Played(question, stroke, out _));
    }

    private static StrokeEnd? Played(VariantQuestion question, Stroke stroke, out bool isPotted)
    {
        isPotted = false;
        var variants = new StrokeVariants(question);
        if (variants.AimedAnew(stroke) is not { } aimed)
            return null;
        var (after, record) = variants.Play(aimed);
        isPotted = after.PocketOf(question.Cut!.Value.Pot.Slot) == question.Cut.Value.Pocket;
        return StrokeEnd.Of(record, after, question.Layout);
    }

    /// <summary>The stroke aimed just beyond the edge of what pots; null if no aim pots it.</summary>
    private static NearlyMissed? JustMissed(VariantQuestion question, Stroke stroke, bool isThick)
    {
        var (variants, cut) = (new StrokeVariants(question), question.Cut!.Value);
        if (variants.AimedAnew(stroke) is not { } aimed)
            return null;
        var (right, left) = PotAim.Window(new PotTrial(question.Layout, cut, question.Shape), cut, aimed);
        var (after, record) = variants.Play(aimed with { AimDegrees = cut.CutDegrees >= 0 == isThick ? left + Beyond : right - Beyond });
        var slot = cut.Pot.Slot;
        return new(stroke.Pace, isThick, after.IsOnTable(slot) ? after.At(slot) : null, after.IsOnTable(0) ? after.At(0) : null);
    }
}
