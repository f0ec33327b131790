using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Practice;

namespace DeepBaize.Data.Demo;

/// <summary>
/// Four weeks of two invented players, played by the simulator with their errors. Tilda's long pots go worse from the other side until she
/// lowers her bridge in the third week; her stop shots get steadier. Orrin misses his thin pots thick, and nobody has told him yet.
/// </summary>
internal static class DemoPractice
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>A part of a session: so many attempts at a routine, and how the player is off there.</summary>
    /// <param name="Steadiness">Of the player's errors, how many times as large they are.</param>
    /// <param name="ThickDegrees">Turned towards the thick side, from the side of the table as laid and from the other.</param>
    private sealed record Part(
        string Routine,
        int Attempts,
        double Steadiness = 1,
        (double Laid, double Other) ThickDegrees = default,
        string Group = ""
    );

    private sealed record Visit(int DaysAgo, Part[] Parts, string Note = "");

    private static readonly Visit[] OfTilda =
    [
        new(
            26,
            [new("straight-tip", 12), new("long-pots", 18, 1.2, (0, 0.12)), new("stop", 18, 1.4)],
            "First day back. Long ones from the other side are a lottery."
        ),
        new(23, [new("long-pots", 24, 1.1, (0, 0.12)), new("zones", 18, 1.2), new("line-up", 3)]),
        new(20, [new("straight-gate", 12), new("stop", 24, 1.25), new("long-pots", 18, 1.1, (0, 0.12))]),
        new(17, [new("long-pots", 24, 1, (0, 0.1)), new("pace-ladder", 16, 1.1), new("black-off-its-spot", 4)]),
        new(
            13,
            [new("long-pots", 30, 1, (0, 0.02), "lower bridge"), new("stop", 18, 1.1)],
            "Bridge lower from the other side: at once straighter."
        ),
        new(10, [new("zones", 24, 1.05), new("long-pots", 24, 0.95, (0, 0.01), "lower bridge"), new("line-up", 3)]),
        new(7, [new("stop", 24, 0.95), new("spin-ladder", 24), new("long-pots", 18, 0.9, default, "lower bridge")]),
        new(4, [new("long-pots", 24, 0.9, default, "lower bridge"), new("pace-ladder", 16), new("black-off-its-spot", 4)]),
        new(
            1,
            [new("straight-tip", 12), new("stop", 24, 0.85), new("zones", 18, 0.9), new("line-up", 4)],
            "Hold on to the low bridge. Next: pace."
        ),
    ];

    private static readonly Visit[] OfOrrin =
    [
        new(25, [new("height", 12), new("thin-pots", 24, 1, (0.12, 0.12))]),
        new(19, [new("thin-pots", 24, 1, (0.12, 0.12)), new("follow", 18), new("colours-in-order", 5)]),
        new(12, [new("thin-pots", 30, 0.95, (0.11, 0.11)), new("safety-to-baulk", 16)], "Always thick, he says; and does not believe it."),
        new(6, [new("follow", 18), new("thin-pots", 24, 0.95, (0.11, 0.11)), new("colours-in-order", 6)]),
        new(2, [new("height", 12), new("thin-pots", 24, 0.95, (0.1, 0.1)), new("escapes", 12)]),
    ];

    /// <param name="with">The ids of the two, of the table and of the cue.</param>
    public static void Add(DeepBaizeContext db, DateTimeOffset now, (Guid Tilda, Guid Orrin, Guid Table, Guid Cue) with)
    {
        Add(db, now, OfTilda, (with.Tilda, Player.OfSkill("county"), 41), (with.Table, with.Cue));
        Add(db, now, OfOrrin, (with.Orrin, Player.OfSkill("club") with { Hand = Hand.Left }, 17), (with.Table, with.Cue));
    }

    private static void Add(
        DeepBaizeContext db,
        DateTimeOffset now,
        Visit[] visits,
        (Guid Id, Player Player, int Seed) who,
        (Guid Table, Guid Cue) with
    )
    {
        var random = new Random(who.Seed);
        var conditions = db.Tables.Local.Single(t => t.Id == with.Table).Conditions;
        foreach (var visit in visits)
        {
            // In the evening, as the club is open.
            var start = new DateTimeOffset(now.UtcDateTime.Date.AddDays(-visit.DaysAgo).AddHours(18), TimeSpan.Zero);
            var session = new PracticeSession
            {
                Id = Guid.CreateVersion7(start),
                OwnerId = User.LocalId,
                PlayerId = who.Id,
                TableId = with.Table,
                CueId = with.Cue,
                StartedAt = start,
                Plan = [.. visit.Parts.Select(p => new PlannedRoutine(p.Routine, 15))],
                Now = new(visit.Parts[^1].Routine),
                Note = visit.Note,
                UpdatedAt = start,
            };
            db.Sessions.Add(session);
            var at = start;
            foreach (var part in visit.Parts)
            {
                var routine = ShippedRoutines.Find(part.Routine)!;
                for (var i = 0; i < part.Attempts; i++)
                {
                    at = at.AddSeconds(routine.Steps[0].IsRun ? 240 : 25 + random.Next(20));
                    var attempt = Played(routine, part, i, who.Player, random);
                    session.Changes++;
                    var made = attempt(session, at);
                    made.LaidHash = Laid(db, routine.Steps[made.Step], conditions);
                    db.Attempts.Add(made);
                }
            }
            session.EndedAt = at.AddMinutes(2);
        }
    }

    private static string Laid(DeepBaizeContext db, Step step, IReadOnlyDictionary<string, double> conditions)
    {
        var laid = LaidStep.Of(User.LocalId, step, conditions);
        if (db.LaidSteps.Local.All(l => l.Hash != laid.Hash))
            db.LaidSteps.Add(laid);
        return laid.Hash;
    }

    private static Func<PracticeSession, DateTimeOffset, Attempt> Played(
        Routine routine,
        Part part,
        int index,
        Player player,
        Random random
    )
    {
        var number = index * routine.Steps.Count / part.Attempts % routine.Steps.Count;
        var isMirrored = routine.BothSides && index % 2 == 1;
        var step = routine.StepAt(number, isMirrored);
        if (step.IsRun)
            return Run(part.Routine, number, step, player, random);
        var layout = step.LayoutOn(Shape);
        var pot = step.PotIn(layout);
        var stroke = step.StrokeOn(layout, Shape, player);
        var scatter = Scatter.Of(layout, stroke, player.Skill.Times(part.Steadiness), Shape);
        var error = scatter.Error(StandardDraws.Draw(random));
        if (pot is not null)
        {
            var cut = Cut.Of(layout, pot, Shape);
            // Thicker is towards the ball's middle: of a ball cut to the left, the white passes to the right of it.
            var thick = isMirrored ? part.ThickDegrees.Other : part.ThickDegrees.Laid;
            error = error with { TurnDegrees = error.TurnDegrees + thick * Math.Sign(cut.CutDegrees) };
        }
        var simulator = new Simulator(Shape, Simulator.Coarse);
        var record = new ShotRecord();
        error.Play(simulator, layout, stroke, record);
        var seen = Observation.Of(record, simulator, layout, pot);
        var isDone = step.IsDone(seen) == true;
        var wantsPlace = step.Demands.Any(d => d.Kind is DemandKind.WhiteIn or DemandKind.WhiteOnCushion);
        var reasons = isDone ? [] : ReasonsOf(record, seen, layout, pot, error);
        return (session, at) =>
            With(New(session, at, (part.Routine, number, isMirrored)), isDone, reasons, wantsPlace ? seen.White : null, part.Group);
    }

    private static Attempt With(Attempt attempt, bool isDone, string[] reasons, Vec2? white, string group)
    {
        (attempt.Said, attempt.IsDone, attempt.Reasons, attempt.Group) = (isDone, isDone, reasons, group);
        // As a thumb points: to the centimetre.
        if (white is { } place)
            (attempt.WhiteX, attempt.WhiteY) = (Math.Round(place.X, 2), Math.Round(place.Y, 2));
        return attempt;
    }

    private static string[] ReasonsOf(ShotRecord record, Observation seen, Layout layout, Pot? pot, in StrokeError error)
    {
        if (pot is not null && seen.Potted == false)
        {
            var cut = Cut.Of(layout, pot, Shape);
            return [Spread.MissedThick(record, cut, cut.PotDegrees) ? "thick" : "thin"];
        }
        if (Math.Abs(error.Pace) > 0.03)
            return [error.Pace > 0 ? "hard" : "soft"];
        return error.Height != 0 ? [error.Height > 0 ? "high" : "low"] : [];
    }

    /// <summary>A run: one ball after the other while luck lasts, the colours by their values.</summary>
    private static Func<PracticeSession, DateTimeOffset, Attempt> Run(string id, int step, Step of, Player player, Random random)
    {
        var goesOn = player.Skill.Name == "county" ? 0.9 : 0.8;
        int[] colours = [2, 3, 4, 5, 6, 7];
        var (score, balls) = (0, 0);
        string[] kinds = ["follow", "stun", "screw", "follow"];
        var counted = new Dictionary<string, int>();
        while (balls < 36 && random.NextDouble() < goesOn)
        {
            var points = id switch
            {
                "black-off-its-spot" => 7,
                "colours-in-order" => balls < 6 ? colours[balls] : 0,
                _ => balls % 2 == 0 ? 1 : 7 - random.Next(3),
            };
            if (points == 0)
                break;
            score += points;
            balls++;
            var kind = kinds[random.Next(kinds.Length)];
            counted[kind] = counted.GetValueOrDefault(kind) + 1;
        }
        var isDone = of.IsDone(new() { Score = score }) == true;
        return (session, at) =>
        {
            var attempt = New(session, at, (id, step, false));
            (attempt.IsDone, attempt.Score, attempt.Kinds) = (isDone, score, counted);
            return attempt;
        };
    }

    private static Attempt New(PracticeSession session, DateTimeOffset at, (string Routine, int Step, bool IsMirrored) what) =>
        new()
        {
            Id = Guid.CreateVersion7(at),
            OwnerId = User.LocalId,
            SessionId = session.Id,
            PlayerId = session.PlayerId,
            TableId = session.TableId,
            CueId = session.CueId,
            Revision = 1,
            At = at,
            Routine = what.Routine,
            Step = what.Step,
            IsMirrored = what.IsMirrored,
            IsDone = false,
            Reasons = [],
            Body = [],
            ChangedIn = session.Changes,
        };
}
