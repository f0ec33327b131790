using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Learning;

/// <summary>What it would bring to be better at one part.</summary>
/// <param name="Points">Points of a visit to an open table, less what the miss at its end leaves, more than now.</param>
/// <param name="Frames">Share of frames that are won more, 0–1, against a player as he is now.</param>
public sealed record PartGain(SkillPart Part, Estimate Points, Estimate Frames);

/// <summary>What to practise: by how much visits would be worth more if each part of a player's error were smaller by a fifth.</summary>
/// <param name="Visit">Points of a break from an open table as the player is.</param>
/// <param name="Parts">The most worth first.</param>
public sealed record PracticeGain(Estimate Visit, IReadOnlyList<PartGain> Parts)
{
    /// <summary>By how much a part is smaller, as a share.</summary>
    public const double Better = 0.2;

    /// <summary>Breaks that are played, and errors of each stroke in which the player and the better one are compared.</summary>
    private const int Breaks = 32,
        ErrorsOfStroke = 24;

    private static readonly ErrorStream Draws = ErrorStream.Named("practice gain");

    /// <summary>
    /// Plays breaks with this player's errors; at each stroke of them the better player plays the same stroke with the same luck. The sum
    /// of these differences over a break is what the better one gains, as long as he goes on as the first (the performance difference of
    /// Kakade &amp; Langford, ICML 2002, from memory, to first order).
    /// </summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static PracticeGain Of(Player player, TableShape shape, Workers workers)
    {
        var better = Skill.Parts.Select(p => (Part: p, Skill: Improved(player.Skill, p))).ToList();
        var breaks = workers.InParallel(workers.Bounded(Breaks, 6), k => Play(player, better, shape, k, workers));
        var visit = MeanOf([.. breaks.Select(b => (double)b.Points)]);
        PartGain GainOf(int i)
        {
            var points = MeanOf([.. breaks.Select(one => one.Gains[i])]);
            return new(better[i].Part, points, FramesOf(points, visit.Value, player));
        }
        return new(visit, [.. Enumerable.Range(0, better.Count).Select(GainOf).OrderByDescending(p => p.Points.Value)]);
    }

    /// <summary>
    /// Share of frames that are won more by visits worth so many points more: in the game of visits, by a player whose breaks are as much
    /// longer, against himself as he is now, each breaking off in turn.
    /// </summary>
    private static Estimate FramesOf(Estimate points, double visit, Player player)
    {
        var now = Evaluation.OrdinaryPot(player.Skill);
        double Won(double more)
        {
            var chances = FrameChances.Of(VisitSkill.Of(Longer(now, 1 + more / Math.Max(1, visit))), VisitSkill.Of(now));
            return (chances.AfterBreakOf(1) + 1 - chances.AfterBreakOf(0)) / 2 - 0.5;
        }
        var error = Math.Abs(Won(points.Value + points.Error) - Won(points.Value - points.Error)) / 2;
        return new(Won(points.Value), error, points.Strokes);
    }

    /// <summary>The chance of an ordinary pot with which so many times as many go in a row.</summary>
    private static double Longer(double ordinary, double times)
    {
        const double least = 0.05,
            most = 0.999;
        var wanted = times * VisitSkill.Of(ordinary).PotsInARow;
        var (low, high) = (least, most);
        for (var i = 0; i < 40; i++)
        {
            var middle = (low + high) / 2;
            (low, high) = VisitSkill.Of(middle).PotsInARow < wanted ? (middle, high) : (low, middle);
        }
        return (low + high) / 2;
    }

    private static (int Points, double[] Gains) Play(
        Player player,
        List<(SkillPart Part, Skill Skill)> better,
        TableShape shape,
        int k,
        Workers workers
    )
    {
        var preferences = PlanPreferences.Default with { Target = PlanTarget.MostPoints };
        var from = OpenTable(new(k + 1), shape);
        // On this thread alone: the breaks are played side by side.
        var context = new SearchContext(new(from.Frame, player, shape, preferences), new(1), workers.Cancel);
        var (search, workspace) = (new ShotSearch(context), new Workspace(context));
        var (random, gains, shot) = (new Random(1000 + k), new double[better.Count], 0);
        var result = BreakPlay.Play(
            from,
            situation => search.Shallow(workspace, situation) is { } choice ? BreakAdvice.IntentionOf(choice) : null,
            player.Skill,
            shape,
            _ => StandardDraws.Draw(random),
            (situation, intention, _) => Compare(situation, intention, shot++)
        );
        return (result.Points, gains);

        void Compare(Situation situation, Intention intention, int number)
        {
            workers.Cancel.ThrowIfCancellationRequested();
            var draws = Draws.Part(k).Part(number).Set(ErrorsOfStroke);
            double[] Values(Skill skill)
            {
                var scatter = workspace.ScatterOf(situation.Layout, intention.Stroke, skill.Times(intention.ErrorFactor), intention.Pot);
                return
                [
                    .. draws.Select(d =>
                        workspace.ValueOf(workspace.Play(situation, intention.Stroke, scatter.Error(d), intention.Nominated).Leaves)
                    ),
                ];
            }
            var now = Values(player.Skill).Average();
            for (var i = 0; i < better.Count; i++)
                if (better[i].Skill != player.Skill)
                    gains[i] += Values(better[i].Skill).Average() - now;
        }
    }

    /// <summary>The skill with one part smaller by a fifth; evenness larger, and the rest's factor nearer to one.</summary>
    public static Skill Improved(Skill skill, SkillPart part) =>
        part.Name switch
        {
            "direction" => skill with { DirectionDegrees = Less(skill.DirectionDegrees) },
            "sighting" => skill with { SightingMillimetres = Less(skill.SightingMillimetres) },
            "allowance" => skill with { AllowancePercent = Less(skill.AllowancePercent) },
            "pace" => skill with { PacePercent = Less(skill.PacePercent) },
            "height" => skill with { HeightMillimetres = Less(skill.HeightMillimetres) },
            "side" => skill with { SideMillimetres = Less(skill.SideMillimetres) },
            "cushion" => skill with { CushionDegrees = Less(skill.CushionDegrees) },
            "rest" => skill with { RestFactor = 1 + Less(skill.RestFactor - 1) },
            _ => skill with { Evenness = Math.Min(30, skill.Evenness / (1 - Better)) },
        };

    private static double Less(double part) => (1 - Better) * part;

    private static Estimate MeanOf(double[] values)
    {
        var mean = values.Average();
        var error = Math.Sqrt(values.Sum(v => (v - mean) * (v - mean)) / Math.Max(1, values.Length - 1) / values.Length);
        return new(mean, error, values.Length);
    }

    /// <summary>Ten reds spread out, the colours on their spots, the white not far from a red.</summary>
    private static Situation OpenTable(Random random, TableShape shape)
    {
        const int reds = 10;
        const double gap = 0.08;
        var balls = Rack.Colours().ToList();
        bool IsFree(Vec2 at) => shape.CanRest(at) && balls.TrueForAll(b => b.Gap(at) > gap);
        Vec2 Drawn() => new(1.3 + 2.1 * random.NextDouble(), 0.1 + (Width - 0.2) * random.NextDouble());
        while (balls.Count < 6 + reds + 1)
        {
            var at = Drawn();
            if (IsFree(at))
                balls.Add(new(balls.Count < 6 + reds ? Ball.Red(balls.Count - 5) : Ball.White, at.X, at.Y));
        }
        return Situation.Create(Layout.OfRest(balls));
    }
}
