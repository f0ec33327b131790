using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>A stroke at one pace: what it does, and how likely its pot is.</summary>
/// <param name="Chance">Of the pot, the other balls out of the way; null without a pot.</param>
public sealed record PaceRow(FanLine Line, Estimate? Chance);

/// <summary>One stroke at several paces, everything else as set.</summary>
/// <param name="BackFrom">The softest pace from which on the white comes back; null if it does at every pace here, or at none.</param>
public sealed record PaceTable(IReadOnlyList<PaceRow> Rows, double? BackFrom)
{
    /// <summary>How exactly the pace is found from which on the white comes back.</summary>
    public const double Accuracy = 0.01;

    /// <summary>Returns the table of a range of paces.</summary>
    public static PaceTable Of(VariantQuestion question, FanRange range, Player player, Workers workers)
    {
        var lines = Fan.Of(question, FanKind.Paces, range, workers);
        var rows = workers.InParallel(lines.Count, i => new PaceRow(lines[i], ChanceOf(question, lines[i].Stroke, player)));
        var first = Enumerable.Range(0, lines.Count).FirstOrDefault(i => lines[i].End.ComesBack, -1);
        if (first <= 0)
            return new(rows, null);
        var variants = new StrokeVariants(question);
        var (soft, hard) = (lines[first - 1].Stroke.Pace, lines[first].Stroke.Pace);
        while (hard - soft > Accuracy)
        {
            var middle = (soft + hard) / 2;
            var stroke = variants.AimedAnew(question.Stroke with { Pace = middle });
            var isBack = false;
            if (stroke is { } played)
            {
                var (after, record) = variants.Play(played);
                isBack = StrokeEnd.Of(record, after, question.Layout).ComesBack;
            }
            (soft, hard) = isBack ? (soft, middle) : (middle, hard);
        }
        return new(rows, hard);
    }

    private static Estimate? ChanceOf(VariantQuestion question, in Stroke stroke, Player player) =>
        question.Cut is { } cut ? TableReading.ChanceAsSet(question.Layout, cut.Pot, stroke, player, question.Shape) : null;
}
