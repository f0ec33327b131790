using DeepBaize.Core;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Learning;

/// <summary>What strokes that were played and seen tell: of themselves, of the table, of the player.</summary>
public static class LearningEndpoints
{
    /// <summary>Largest number of strokes that are learnt from at once.</summary>
    private const int MostTrials = 300;

    public static void MapLearning(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/learn").WithTags("Learning").ProducesProblem(400).ProducesProblem(413);
        group
            .MapPost(
                "/stroke",
                async (LearnStrokeRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (shape, skill) = (ShapeOf(request.Conditions), request.Player.Checked().Skill);
                    var observed = request.Checked(shape);
                    var found = await desk.JudgeAsync(http, workers => Diagnosis.Of(observed, skill, shape, workers));
                    return DiagnosisResult.Of(found, observed, shape);
                }
            )
            .WithName("learnStroke")
            .WithSummary("Which errors explain where the balls of a stroke ended, the likeliest first");
        group
            .MapPost(
                "/shot",
                async (LearnShotRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (shape, skill) = (ShapeOf(request.Conditions), request.Player.Checked().Skill);
                    var attempts = request.Checked(shape);
                    var verdict = await desk.JudgeAsync(http, workers => ShotVerdict.Of(attempts, skill, shape, workers));
                    return ShotVerdictResult.Of(verdict, attempts[0].Meant);
                }
            )
            .WithName("learnShot")
            .WithSummary("What several attempts at one stroke have in common, apart from their scatter");
        group
            .MapPost(
                "/table",
                async (LearnTableRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (belief, skill) = (BeliefOf(request.Conditions, request.Fit), request.Player.Checked().Skill);
                    var trials = Checked(request.Trials, new(belief.Conditions), "trials");
                    return await desk.JudgeAsync(
                        http,
                        workers =>
                        {
                            var learnt = TableFit.Of(trials, belief, skill, workers);
                            var knowledge = TeachingStrokes.Knowledge(learnt.Belief, workers);
                            return new TableLearntResult(
                                EstimatesOf(learnt.Belief),
                                learnt.MissBefore,
                                learnt.MissAfter,
                                knowledge,
                                learnt.Held,
                                learnt.Strange
                            );
                        }
                    );
                }
            )
            .WithName("learnTable")
            .WithSummary("Figures of a table, its balls and the cue, from strokes that were played on it");
        group
            .MapPost(
                "/player",
                async (LearnPlayerRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (shape, player) = (ShapeOf(request.Conditions), request.Player.Checked());
                    var attempts = Checked(request.Attempts, shape, "attempts");
                    var learnt = await desk.JudgeAsync(http, workers => PlayerFit.Of(attempts, player.Skill, shape, workers));
                    return ResultOf(learnt, player);
                }
            )
            .WithName("learnPlayer")
            .WithSummary("The parts of a player's error, and what he is off by on the average, from strokes on a known table");
        group
            .MapPost(
                "/teach",
                async (TeachRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (before, skill) = (BeliefOf(request.Conditions, request.Fit), request.Player.Checked().Skill);
                    var checks = new Checks();
                    checks.Range("doubt", request.Doubt, Seen.LeastDoubt, Seen.MostDoubt, " m");
                    checks.ThrowIfAny();
                    var trials = request.Trials.Count == 0 ? [] : Checked(request.Trials, new(before.Conditions), "trials");
                    return await desk.JudgeAsync(
                        http,
                        workers =>
                        {
                            var belief = trials.Count == 0 ? before : TableFit.Of(trials, before, skill, workers).Belief;
                            return new TeachResult(
                                NextOf(belief, skill, request.Doubt, workers),
                                TeachingStrokes.Knowledge(belief, workers),
                                TeachingStrokes.Knowledge(before, workers),
                                EstimatesOf(belief)
                            );
                        }
                    );
                }
            )
            .WithName("learnTeach")
            .WithSummary("The strokes that would tell most about a table now, and how well it is known");
        group
            .MapPost(
                "/gain",
                async (GainRequest request, HttpContext http, SearchDesk desk) =>
                {
                    var (shape, player) = (ShapeOf(request.Conditions), request.Player.Checked());
                    return GainResult.Of(await desk.JudgeAsync(http, workers => PracticeGain.Of(player, shape, workers)));
                }
            )
            .WithName("learnGain")
            .WithSummary("What to practise: what each part of a player's error would bring, were it smaller by a fifth");
    }

    /// <summary>Number of teaching strokes to choose from.</summary>
    private const int MostTold = 3;

    /// <summary>The strokes that would tell most, each from another line.</summary>
    internal static IReadOnlyList<TeachingStrokeResult> NextOf(Belief belief, Skill skill, double doubt, Workers workers) =>
        [.. TeachingStrokes.Next(belief, skill, doubt, workers).DistinctBy(n => n.Line).Take(MostTold).Select(Teaching)];

    private static TableShape ShapeOf(IReadOnlyDictionary<string, double>? conditions) => new(Conditions.With(conditions));

    private static Belief BeliefOf(IReadOnlyDictionary<string, double>? conditions, IReadOnlyList<string> fit) =>
        Belief.Before(Conditions.With(conditions), Parameter.Named(fit ?? []));

    private static List<ObservedStroke> Checked(IReadOnlyList<ObservedEntry> trials, TableShape shape, string path)
    {
        if (trials.Count is 0 or > MostTrials || trials.Any(t => t is null))
            throw new InputException(path, $"There are {trials.Count} strokes.", $"1 to {MostTrials}, none of them null");
        return [.. trials.Select((t, i) => t.Checked(shape, $"{path}[{i}]"))];
    }

    internal static IReadOnlyList<EstimateResult> EstimatesOf(Belief belief) =>
        [
            .. belief.Parameters.Select(
                (p, i) =>
                {
                    var range = belief.RangeOf(i);
                    return new EstimateResult(p.Name, range.Value, range.Low, range.High, belief.Narrowed(i));
                }
            ),
        ];

    internal static PlayerLearntResult ResultOf(PlayerLearnt learnt, Player player)
    {
        var habits = learnt.Habits;
        return new(
            [.. learnt.Parts.Select(p => new EstimateResult(p.Part.Name, p.Range.Value, p.Range.Low, p.Range.High, p.Narrowed))],
            new(
                RangeResult.Of(habits.Turn),
                RangeResult.Of(habits.Pace),
                RangeResult.Of(habits.Side),
                RangeResult.Of(habits.Height),
                learnt.Butt is { } raised ? RangeResult.Of(raised) : null
            ),
            Pace.OfCueSpeed(Pace.CueSpeed(5) * Math.Max(0.1, 1 + habits.Pace.Value)),
            learnt.Butt is { } butt ? Math.Clamp(player.NaturalElevation + butt.Value, 0, Player.HighestButt) : null,
            learnt.Unexplained
        );
    }

    private static TeachingStrokeResult Teaching(TeachingStroke t)
    {
        var strike = t.Stroke.ToStrike();
        return new(
            t.Line,
            [.. t.Layout.Balls.Select(BallEntry.Of)],
            StrokeEntries.Free(t.Stroke),
            new()
            {
                Aim = strike.AimDegrees,
                CueSpeed = strike.CueSpeed,
                Side = strike.Side,
                Height = strike.Height,
                Elevation = strike.ElevationDegrees,
            },
            PlaceResult.Rounded(t.Towards)
        );
    }
}
