using DeepBaize.Core.Table;

namespace DeepBaize.Core.Learning;

/// <summary>In what a figure is learnt.</summary>
public enum ParameterScale
{
    /// <summary>As it is.</summary>
    Plain,

    /// <summary>By its logarithm: what cannot be negative and varies by shares.</summary>
    Log,

    /// <summary>By the logarithm of the odds of its place in its range: what comes near an end of it and cannot pass.</summary>
    Odds,
}

/// <summary>
/// A figure of table, balls or cue that is learnt, with what is believed of it before anything was seen. Presets span the priors: common
/// practice, no source.
/// </summary>
/// <param name="Field">Its name, range and place among the conditions.</param>
/// <param name="Scale">In what it is learnt.</param>
/// <param name="Doubt">Standard deviation before anything was seen, in that scale.</param>
public sealed record Parameter(ConditionField Field, ParameterScale Scale, double Doubt)
{
    /// <summary>What can be learnt, by the name of the condition.</summary>
    public static IReadOnlyList<Parameter> All { get; } =
    [
        Log("rollingFriction", 0.25),
        Log("slidingFriction", 0.25),
        Log("spinDeceleration", 0.4),
        Plain("driftAlong", 0.006),
        Plain("driftAcross", 0.006),
        Odds("cushionRestitution", 1.1),
        Log("cushionFriction", 0.3),
        Plain("noseSine", 0.03),
        Plain("bedRestitution", 0.1),
        Odds("ballRestitution", 0.6),
        Log("ballFrictionFloor", 0.4),
        Log("ballFrictionRange", 0.25),
        Log("ballFrictionDecay", 0.25),
        Log("cueMass", 0.08),
        Plain("tipRestitution", 0.05),
        Log("endMassRatio", 0.35),
        Plain("cornerGap", 0.003),
        Plain("middleGap", 0.004),
    ];

    private static Parameter Log(string name, double doubt) => new(FieldOf(name), ParameterScale.Log, doubt);

    private static Parameter Plain(string name, double doubt) => new(FieldOf(name), ParameterScale.Plain, doubt);

    private static Parameter Odds(string name, double doubt) => new(FieldOf(name), ParameterScale.Odds, doubt);

    private static ConditionField FieldOf(string name) => Conditions.Fields.First(f => f.Name == name);

    /// <summary>Name in the API.</summary>
    public string Name => Field.Name;

    /// <summary>Finds what is to be learnt by its names.</summary>
    /// <exception cref="InputException">One that cannot be learnt, or is there twice.</exception>
    public static IReadOnlyList<Parameter> Named(IReadOnlyList<string> names, string path = "fit")
    {
        var checks = new Checks(path);
        checks.That(names.Count > 0, "", "Nothing is to be learnt.", "one figure at least");
        var found = new List<Parameter>();
        for (var i = 0; i < names.Count; i++)
        {
            var one = All.FirstOrDefault(p => p.Name == names[i]);
            checks.That(one is not null, $"[{i}]", "That figure cannot be learnt.", string.Join(", ", All.Select(p => p.Name)));
            checks.That(one is null || !found.Contains(one), $"[{i}]", "That figure is there twice.", "each figure once");
            if (one is not null)
                found.Add(one);
        }
        checks.ThrowIfAny();
        return found;
    }

    /// <summary>The figure as it is learnt.</summary>
    public double Of(Conditions conditions)
    {
        var value = Field.Get(conditions);
        var share = Math.Clamp((value - Field.Min) / (Field.Max - Field.Min), 1e-3, 1 - 1e-3);
        return Scale switch
        {
            ParameterScale.Log => Math.Log(Math.Max(1e-6, value)),
            ParameterScale.Odds => Math.Log(share / (1 - share)),
            _ => value,
        };
    }

    /// <summary>The figure itself, within its range.</summary>
    public double Value(double learnt) =>
        Math.Clamp(
            Scale switch
            {
                ParameterScale.Log => Math.Exp(learnt),
                ParameterScale.Odds => Field.Min + (Field.Max - Field.Min) / (1 + Math.Exp(-learnt)),
                _ => learnt,
            },
            Field.Min,
            Field.Max
        );

    /// <summary>Returns the conditions with this figure.</summary>
    public Conditions Set(Conditions conditions, double learnt) => Field.Set(conditions, Value(learnt));
}
