namespace DeepBaize.Core.Table;

/// <summary>
/// A property as players speak of it: slow or quick cloth, tight or generous pockets. It turns several figures at once, from one extreme by
/// a match table's figures to the other. All extremes are common practice, no source.
/// </summary>
/// <param name="Name">cloth, cushions, pockets, balls, cue: the group whose figures it turns.</param>
/// <param name="Low">Figures at −1: slow, dull, tight, worn, whippy.</param>
/// <param name="High">Figures at +1: quick, lively, generous, clean, stiff.</param>
public sealed record ConditionScale(string Name, IReadOnlyDictionary<string, double> Low, IReadOnlyDictionary<string, double> High)
{
    /// <summary>All scales, in the order in which players ask about a table.</summary>
    public static IReadOnlyList<ConditionScale> All { get; } =
    [
        new(
            "cloth",
            Figures(("rollingFriction", 0.018), ("slidingFriction", 0.24)),
            Figures(("rollingFriction", 0.009), ("slidingFriction", 0.178))
        ),
        new("cushions", Figures(("cushionRestitution", 0.88)), Figures(("cushionRestitution", 1))),
        new(
            "pockets",
            Figures(("cornerGap", 0.080), ("cornerJawRadius", 0.062), ("middleGap", 0.088)),
            Figures(("cornerGap", 0.094), ("cornerJawRadius", 0.085), ("middleGap", 0.106))
        ),
        new(
            "balls",
            Figures(("ballRestitution", 0.89), ("ballFrictionFloor", 0.025), ("ballFrictionRange", 0.15)),
            Figures(("ballRestitution", 0.97), ("ballFrictionFloor", 0.006), ("ballFrictionRange", 0.08))
        ),
        new("cue", Figures(("endMassRatio", 45)), Figures(("endMassRatio", 17))),
    ];

    private static Dictionary<string, double> Figures(params (string Name, double Value)[] figures) =>
        figures.ToDictionary(f => f.Name, f => f.Value);

    /// <summary>Finds a scale; null if there is none of this name.</summary>
    public static ConditionScale? Find(string? name) => All.FirstOrDefault(s => s.Name == name);

    /// <summary>Returns conditions with this property turned, all other figures as they are.</summary>
    /// <param name="conditions">What differs from the defaults.</param>
    /// <param name="to">−1 to 1; 0 is a match table's.</param>
    public IReadOnlyDictionary<string, double> Turned(IReadOnlyDictionary<string, double>? conditions, double to)
    {
        var turned = (conditions ?? new Dictionary<string, double>()).ToDictionary(c => c.Key, c => c.Value);
        foreach (var field in Fields)
        {
            var standard = field.Get(Conditions.Default);
            var end = (to < 0 ? Low : High)[field.Name];
            turned.Remove(field.Name);
            if (to != 0)
                turned[field.Name] = Math.Round(standard + Math.Abs(to) * (end - standard), 6);
        }
        return turned;
    }

    /// <summary>Where conditions stand on this scale, −1 to 1: the mean over its figures, each held to its extremes.</summary>
    public double Of(Conditions conditions) =>
        Math.Round(
            Fields.Average(f =>
            {
                var (standard, value) = (f.Get(Conditions.Default), f.Get(conditions));
                if (value == standard)
                    return 0;
                var isLow = (value < standard) == (Low[f.Name] < standard);
                var share = (value - standard) / ((isLow ? Low : High)[f.Name] - standard);
                return (isLow ? -1 : 1) * Math.Min(1, share);
            }),
            3
        );

    /// <summary>Returns conditions that differ from a match table's in this property's group alone.</summary>
    public Conditions Alone(Conditions conditions) =>
        Conditions.Fields.Where(f => f.Group == Name).Aggregate(Conditions.Default, (made, f) => f.Set(made, f.Get(conditions)));

    private IEnumerable<ConditionField> Fields => Conditions.Fields.Where(f => Low.ContainsKey(f.Name));
}
