using System.Globalization;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>
/// Whether the figures of a stroke err as they say: each against the same figure from sixteen times as many strokes of an independent
/// stream, in the error of both. <c>dotnet run -c Release --project bench/DeepBaize.Benchmarks -- errors</c>. A few minutes.
/// </summary>
public static class ErrorQuality
{
    private const int Cases = 400,
        ReferenceStrokes = 8192;

    /// <summary>Shares outside these are told by the floor of their error alone.</summary>
    private const double LeastShare = 0.03;

    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly ErrorStream Independent = ErrorStream.Named("reference");

    public static void Run(string path)
    {
        var workers = new Workers(FairGate.Shared, default);
        var (scores, told) = (new Dictionary<string, List<double>>(), new Dictionary<string, List<double>>());
        void Score(string figure, in Estimate one, in Estimate reference, bool isShare = true)
        {
            if (isShare && reference.Value is < LeastShare or > 1 - LeastShare || one.Error == 0)
                return;
            if (!scores.TryGetValue(figure, out var list))
                (scores[figure], told[figure]) = (list = [], []);
            list.Add((one.Value - reference.Value) / Math.Sqrt(one.Error * one.Error + reference.Error * reference.Error));
            told[figure].Add(one.Error);
        }
        foreach (var (question, chance) in Questions().Take(Cases))
        {
            var one = Spread.Sample(question, workers, outlines: false);
            var reference = Spread.Sample(question, workers, SpreadEffort.Of(ReferenceStrokes), Independent, outlines: false);
            if (Alone(question) is { } alone)
            {
                var pot = Spread.Sample(alone, workers, SpreadEffort.Of(ReferenceStrokes), Independent, outlines: false).Odds.Pot;
                Score("chance read, other balls out of the way", chance, pot);
            }
            Score("pot", one.Odds.Pot, reference.Odds.Pot);
            Score("missed thick", one.Odds.MissThick, reference.Odds.MissThick);
            Score("missed thin", one.Odds.MissThin, reference.Odds.MissThin);
            Score("in-off", one.Odds.InOff, reference.Odds.InOff);
            Score("kiss", one.Odds.Kiss, reference.Odds.Kiss);
            Score("miscue", one.Odds.Miscue, reference.Odds.Miscue);
            Score("mean rest up the table", one.Mean.X, reference.Mean.X, isShare: false);
            Score("mean rest across", one.Mean.Y, reference.Mean.Y, isShare: false);
        }
        var lines = new List<string>
        {
            "| figure of a stroke | cases | error told, mean | r.m.s. of (told − reference), in errors | beyond two errors |",
            "|---|---|---|---|---|",
        };
        foreach (var (figure, list) in scores)
        {
            var (error, beyond) = (told[figure].Average(), list.Count(z => Math.Abs(z) > 2) / (double)list.Count);
            var square = list.Average(z => z * z);
            lines.Add(Invariant($"| {figure} | {list.Count} | {error:0.0000} | {Math.Sqrt(square):0.00} | {beyond:0.0%} |"));
        }
        lines.ForEach(Console.WriteLine);
        DocTable.Write(path, "errors", lines);
    }

    private static string Invariant(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);

    /// <summary>A direct pot as the reading takes it: the other balls out of the way; null of plants and doubles.</summary>
    private static SpreadQuestion? Alone(SpreadQuestion question)
    {
        var cut = question.Pot!.Value;
        if (cut.Kind != PotKind.Direct)
            return null;
        var layout = Layout.OfRest([question.Layout.White, question.Layout.Balls[cut.Pot.Slot]]);
        return question with { Layout = layout, Pot = Cut.Of(layout, cut.Pot with { Slot = 1 }, Shape) };
    }

    /// <summary>Pots of all kinds of chance, by two players, each as the reading of the table plays it.</summary>
    private static IEnumerable<(SpreadQuestion Question, Estimate Chance)> Questions()
    {
        foreach (var (_, situation) in BreakPositions.All(Shape))
            foreach (var player in (Player[])[Player.OfSkill("county"), Player.OfSkill("club")])
                foreach (
                    var option in TableReading
                        .Read(situation.Layout, new(0, 0, 0, Pace.Medium, player.NaturalElevation), player, Shape)
                        .Where(o => o.AimDegrees is not null && o.Chance.Value is > 0.05 and < 0.97)
                        .Take(6)
                )
                {
                    var stroke = option.Stroke;
                    var skill = player.Skill.Times(option.Reach.ErrorFactor);
                    yield return (new(situation.Layout, stroke, option.Cut, skill, Shape), option.Chance);
                }
    }
}
