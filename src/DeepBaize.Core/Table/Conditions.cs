namespace DeepBaize.Core.Table;

/// <summary>
/// How this table, these balls and this cue behave: every figure of the model that a user can change. SI units.
/// The defaults and their sources are in docs/model.md.
/// </summary>
public sealed record Conditions
{
    /// <summary>Acceleration of gravity, m/s².</summary>
    public double Gravity { get; init; } = 9.81;

    /// <summary>μs, ball sliding on cloth. Mathavan et al. 2009: 0.178–0.245.</summary>
    public double SlidingFriction { get; init; } = 0.18;

    /// <summary>μr, ball rolling on cloth. Common practice: quick 0.010, slow 0.016.</summary>
    public double RollingFriction { get; init; } = 0.0125;

    /// <summary>rad/s² by which side spin dies on the cloth. Common practice 5–15.</summary>
    public double SpinDeceleration { get; init; } = 10;

    /// <summary>
    /// What nap and a bed that is not level do to a rolling ball, along +x, m/s². Common practice: 0.7 mm in a metre gives 0.005.
    /// </summary>
    public double DriftAlong { get; init; }

    /// <summary>What nap and a bed that is not level do to a rolling ball, along +y, m/s².</summary>
    public double DriftAcross { get; init; }

    /// <summary>e_b, ball on ball. Common practice 0.89–0.98.</summary>
    public double BallRestitution { get; init; } = 0.94;

    /// <summary>The constant in μ_b(u) = floor + range·exp(−decay·u). Alciatore TP A.14.</summary>
    public double BallFrictionFloor { get; init; } = 0.00995;

    /// <summary>By how much μ_b exceeds the floor at no slip. Alciatore TP A.14.</summary>
    public double BallFrictionRange { get; init; } = 0.108;

    /// <summary>s/m.</summary>
    public double BallFrictionDecay { get; init; } = 1.088;

    /// <summary>e_c as energy: e_c² of the work of compression is given back. Mathavan et al. 2010.</summary>
    public double CushionRestitution { get; init; } = 0.98;

    /// <summary>μ_c, ball on nose. Mathavan et al. 2010.</summary>
    public double CushionFriction { get; init; } = 0.14;

    /// <summary>Sine of the angle at which the nose meets the ball above its equator; 0.4 is a nose at 7R/5.</summary>
    public double NoseSine { get; init; } = 0.4;

    /// <summary>e_t, ball on the slate under the cloth. Common practice.</summary>
    public double BedRestitution { get; init; } = 0.5;

    /// <summary>Mass of the cue, kg. Common practice.</summary>
    public double CueMass { get; init; } = 0.52;

    /// <summary>Coefficient of restitution of the tip. Common practice.</summary>
    public double TipRestitution { get; init; } = 0.75;

    /// <summary>Ball mass over the mass of the cue's end, in the squirt formula of Alciatore TP A.31.</summary>
    public double EndMassRatio { get; init; } = 28;

    /// <summary>Clear width at a corner's throat, m. Common practice.</summary>
    public double CornerGap { get; init; } = 0.086;

    /// <summary>Radius of a corner's jaws, m. Common practice.</summary>
    public double CornerJawRadius { get; init; } = 0.075;

    /// <summary>Distance of a corner's drop circle behind the corner point, m. Common practice.</summary>
    public double CornerDropSetback { get; init; } = 0.055;

    /// <summary>Radius of a corner's drop circle, m. Common practice.</summary>
    public double CornerDropRadius { get; init; } = 0.055;

    /// <summary>Clear width at a middle pocket's throat, m. Common practice.</summary>
    public double MiddleGap { get; init; } = 0.096;

    /// <summary>Radius of a middle pocket's jaws, m. Common practice.</summary>
    public double MiddleJawRadius { get; init; } = 0.040;

    /// <summary>Distance of a middle pocket's drop circle behind the nose line, m. Common practice.</summary>
    public double MiddleDropSetback { get; init; } = 0.070;

    /// <summary>Radius of a middle pocket's drop circle, m. Common practice.</summary>
    public double MiddleDropRadius { get; init; } = 0.055;

    /// <summary>Upper bound on either part of the drift, m/s², and on the whole of it as a share of what slows a rolling ball.</summary>
    private const double MostDrift = 0.05,
        MostDriftShare = 0.9;

    /// <summary>The default conditions.</summary>
    public static Conditions Default { get; } = new();

    /// <summary>What nap and slope do to a rolling ball, m/s².</summary>
    public Vec2 Drift => new(DriftAlong, DriftAcross);

    /// <summary>
    /// How far a ball that stops after a way runs off it by drift, m: d·s/(2·μr·g), to first order in it (docs/model.md, "A table that
    /// is not level").
    /// </summary>
    /// <param name="way">m.</param>
    public Vec2 RunsOff(double way) => way / (2 * RollingFriction * Gravity) * Drift;

    /// <summary>μ_b at a slip speed in m/s: Alciatore TP A.14, a fit to Marlow's data.</summary>
    public double BallFriction(double slipSpeed) => BallFrictionFloor + BallFrictionRange * Math.Exp(-BallFrictionDecay * slipSpeed);

    /// <summary>Every figure with its name in the API, unit, allowed range and how to read and change it.</summary>
    /// <remarks>
    /// The ranges keep the model sound: some friction, so that every shot ends; cushion frictions low enough
    /// that a cushion always slows the ball that runs into it.
    /// </remarks>
    public static IReadOnlyList<ConditionField> Fields { get; } =
    [
        new("slidingFriction", "cloth", "", 0.01, 0.45, c => c.SlidingFriction, (c, v) => c with { SlidingFriction = v }),
        new("rollingFriction", "cloth", "", 0.002, 0.05, c => c.RollingFriction, (c, v) => c with { RollingFriction = v }),
        new("spinDeceleration", "cloth", "rad/s²", 0, 50, c => c.SpinDeceleration, (c, v) => c with { SpinDeceleration = v }),
        new("driftAlong", "cloth", "m/s²", -MostDrift, MostDrift, c => c.DriftAlong, (c, v) => c with { DriftAlong = v }),
        new("driftAcross", "cloth", "m/s²", -MostDrift, MostDrift, c => c.DriftAcross, (c, v) => c with { DriftAcross = v }),
        new("gravity", "cloth", "m/s²", 9.7, 9.9, c => c.Gravity, (c, v) => c with { Gravity = v }),
        new("cushionRestitution", "cushions", "", 0.3, 1, c => c.CushionRestitution, (c, v) => c with { CushionRestitution = v }),
        new("cushionFriction", "cushions", "", 0, 0.35, c => c.CushionFriction, (c, v) => c with { CushionFriction = v }),
        new("noseSine", "cushions", "", 0, 0.6, c => c.NoseSine, (c, v) => c with { NoseSine = v }),
        new("bedRestitution", "cloth", "", 0, 0.8, c => c.BedRestitution, (c, v) => c with { BedRestitution = v }),
        new("ballRestitution", "balls", "", 0.5, 1, c => c.BallRestitution, (c, v) => c with { BallRestitution = v }),
        new("ballFrictionFloor", "balls", "", 0, 0.1, c => c.BallFrictionFloor, (c, v) => c with { BallFrictionFloor = v }),
        new("ballFrictionRange", "balls", "", 0, 0.3, c => c.BallFrictionRange, (c, v) => c with { BallFrictionRange = v }),
        new("ballFrictionDecay", "balls", "s/m", 0, 5, c => c.BallFrictionDecay, (c, v) => c with { BallFrictionDecay = v }),
        new("cueMass", "cue", "kg", 0.3, 0.8, c => c.CueMass, (c, v) => c with { CueMass = v }),
        new("tipRestitution", "cue", "", 0.5, 0.95, c => c.TipRestitution, (c, v) => c with { TipRestitution = v }),
        new("endMassRatio", "cue", "", 5, 200, c => c.EndMassRatio, (c, v) => c with { EndMassRatio = v }),
        new("cornerGap", "pockets", "m", 0.060, 0.120, c => c.CornerGap, (c, v) => c with { CornerGap = v }),
        new("cornerJawRadius", "pockets", "m", 0.020, 0.120, c => c.CornerJawRadius, (c, v) => c with { CornerJawRadius = v }),
        new("cornerDropSetback", "pockets", "m", 0.030, 0.090, c => c.CornerDropSetback, (c, v) => c with { CornerDropSetback = v }),
        new("cornerDropRadius", "pockets", "m", 0.040, 0.090, c => c.CornerDropRadius, (c, v) => c with { CornerDropRadius = v }),
        new("middleGap", "pockets", "m", 0.060, 0.130, c => c.MiddleGap, (c, v) => c with { MiddleGap = v }),
        new("middleJawRadius", "pockets", "m", 0.010, 0.080, c => c.MiddleJawRadius, (c, v) => c with { MiddleJawRadius = v }),
        new("middleDropSetback", "pockets", "m", 0.030, 0.100, c => c.MiddleDropSetback, (c, v) => c with { MiddleDropSetback = v }),
        new("middleDropRadius", "pockets", "m", 0.040, 0.090, c => c.MiddleDropRadius, (c, v) => c with { MiddleDropRadius = v }),
    ];

    private static readonly Dictionary<string, ConditionField> FieldByName = Fields.ToDictionary(f => f.Name);

    /// <summary>Named starting points. All are common practice, no source.</summary>
    public static IReadOnlyList<ConditionPreset> Presets { get; } =
    [
        new("match", new Dictionary<string, double>()),
        new("quickMatch", new Dictionary<string, double> { ["rollingFriction"] = 0.010, ["slidingFriction"] = 0.178 }),
        new(
            "slowClub",
            new Dictionary<string, double>
            {
                ["rollingFriction"] = 0.016,
                ["slidingFriction"] = 0.22,
                ["cushionRestitution"] = 0.93,
            }
        ),
        new(
            "tightPockets",
            new Dictionary<string, double>
            {
                ["cornerGap"] = 0.081,
                ["cornerJawRadius"] = 0.065,
                ["middleGap"] = 0.090,
            }
        ),
        new("generousPockets", new Dictionary<string, double> { ["cornerGap"] = 0.092, ["middleGap"] = 0.104 }),
        new(
            "wornBalls",
            new Dictionary<string, double>
            {
                ["ballRestitution"] = 0.90,
                ["ballFrictionFloor"] = 0.02,
                ["ballFrictionRange"] = 0.14,
            }
        ),
    ];

    /// <summary>The defaults with these figures changed.</summary>
    /// <exception cref="InputException">An unknown name, or a value out of its range; or pockets that a ball could slip past.</exception>
    public static Conditions With(IEnumerable<KeyValuePair<string, double>>? changes, string path = "conditions")
    {
        var conditions = Default;
        var errors = new List<InputError>();
        foreach (var (name, value) in changes ?? [])
        {
            if (!FieldByName.TryGetValue(name, out var field))
                errors.Add(new($"{path}.{name}", "There is no such condition.", string.Join(", ", FieldByName.Keys)));
            else if (!(value >= field.Min && value <= field.Max))
                errors.Add(new($"{path}.{name}", $"{value} is out of range.", field.AllowedRange));
            else
                conditions = field.Set(conditions, value);
        }
        if (errors.Count == 0 && conditions.Drift.Length > MostDriftShare * conditions.RollingFriction * conditions.Gravity)
            errors.Add(
                new(
                    $"{path}.driftAlong",
                    "A ball would roll off by itself.",
                    "drift along and across together at most 0.9 of rolling friction times gravity"
                )
            );
        if (errors.Count == 0)
            errors.AddRange(TableShape.CheckPockets(conditions, path));
        InputException.ThrowIfAny(errors);
        return conditions;
    }

    /// <summary>What differs from the defaults, by API name.</summary>
    public IReadOnlyDictionary<string, double> Changes() =>
        Fields.Where(f => f.Get(this) != f.Get(Default)).ToDictionary(f => f.Name, f => f.Get(this));
}

/// <summary>One figure of <see cref="Conditions"/>.</summary>
/// <param name="Name">As in the API.</param>
/// <param name="Group">cloth, cushions, balls, cue or pockets.</param>
/// <param name="Unit">SI, empty for a pure number.</param>
public sealed record ConditionField(
    string Name,
    string Group,
    string Unit,
    double Min,
    double Max,
    Func<Conditions, double> Get,
    Func<Conditions, double, Conditions> Set
)
{
    /// <summary>The allowed range in words, for messages.</summary>
    public string AllowedRange => $"{Min} to {Max}{(Unit == "" ? "" : " " + Unit)}";
}

/// <summary>A named set of changes to the defaults.</summary>
public sealed record ConditionPreset(string Name, IReadOnlyDictionary<string, double> Changes);
