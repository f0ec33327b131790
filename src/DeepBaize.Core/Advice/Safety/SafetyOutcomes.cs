using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>By how much the figures of one sample change if the pot that it leaves is judged by strokes.</summary>
/// <param name="Pots">Whether a pot better than even is left: 1 that it is after all, -1 that it is not, 0 as it was.</param>
/// <param name="Chance">Chance of the best ball left.</param>
/// <param name="Value">In the measure of the answer.</param>
internal readonly record struct MoreLeft(int Pots, double Chance, double Value);

/// <summary>Outcomes of the sampled strokes of one safety.</summary>
internal sealed class SafetyOutcomes
{
    public readonly Sums Snookers = new(),
        PotsLeft = new(),
        Fouls = new(),
        Pots = new(),
        Rival = new(),
        Baulk = new(),
        Tight = new(),
        Worth = new(),
        Left = new(),
        Value = new(),
        Points = new(),
        MorePots = new(),
        MoreChance = new(),
        MoreValue = new();
    public readonly List<double> Worths = [];
    public readonly List<Vec2> Whites = [],
        Balls = [];

    /// <summary>Adds what judging the pot that a sample leaves by strokes changes.</summary>
    public void AddMore(int stroke, in MoreLeft more)
    {
        MorePots.Add(stroke, more.Pots);
        MoreChance.Add(stroke, more.Chance);
        MoreValue.Add(stroke, more.Value);
    }

    /// <summary>Shares of the outcomes.</summary>
    public SafetyOdds Odds =>
        new(
            Snookers.Share,
            AsShare(Corrected(PotsLeft.Share, MorePots)),
            Fouls.Share,
            Pots.Share,
            Baulk.Share,
            Tight.Share,
            AsShare(Corrected(Rival.Mean, MoreChance))
        );

    /// <summary>Expected value, in the measure of the answer.</summary>
    public Estimate Valued => Corrected(Value.Mean, MoreValue);

    /// <summary>The quick estimate of all strokes with what looking closely at some of them adds: a control variate.</summary>
    private static Estimate Corrected(in Estimate quick, Sums more) => more.Strokes == 0 ? quick : quick.Plus(more.Mean);

    private static Estimate AsShare(in Estimate e) => e with { Value = Math.Clamp(e.Value, 0, 1) };

    /// <summary>Mean leave of the worst tenth, points; its standard error from their own scatter.</summary>
    public Estimate WorstTenth
    {
        get
        {
            Worths.Sort();
            var tenth = Worths.TakeLast(Math.Max(1, Worths.Count / 10)).ToList();
            if (Worths.Count == 0)
                return default;
            var mean = tenth.Average();
            return new(mean, Math.Sqrt(tenth.Sum(w => (w - mean) * (w - mean))) / tenth.Count, Worths.Count);
        }
    }
}
