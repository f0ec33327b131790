using System.Globalization;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Web.Drawing;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Practice;

/// <summary>A session on paper: each layout that was played with its measures, what was counted, where the white stopped.</summary>
internal static class SessionSheet
{
    private const double Width = 210,
        Height = 297,
        Margin = 12,
        PlanWidth = 88,
        Block = 66;
    private const int BlocksOfFirst = 4,
        BlocksOfPage = 4,
        MostBlocks = 40;
    private const string Ink = "#1c2624",
        Soft = "#5a6661",
        Line = "#c9c2ad",
        Done = "#12484b",
        Not = "#a8321b";

    /// <param name="routines">By id; null where one is gone.</param>
    /// <param name="with">The player's and the table's name.</param>
    public static byte[] Draw(
        PracticeSession session,
        IReadOnlyList<Attempt> attempts,
        IReadOnlyDictionary<string, Routine?> routines,
        (string Player, string Table) with
    )
    {
        var title = $"Session of {session.StartedAt.ToString("d MMMM yyyy", CultureInfo.InvariantCulture)}";
        using var canvas = new PdfCanvas(Width, Height, title);
        canvas.Text(Margin, 18, 7, title, Ink, bold: true);
        var (done, of) = (attempts.Count(a => a.IsDone), attempts.Count);
        string[] about = [with.Player, with.Table, $"{done} of {of} done"];
        canvas.Text(Margin, 25, 4, string.Join(" · ", about.Where(t => t != "")), Soft);
        var steps = attempts
            .GroupBy(a => (a.Routine, a.Step, a.IsMirrored))
            .Select(g => (g.Key.Routine, g.Key.Step, g.Key.IsMirrored, Attempts: g.ToList()))
            .ToList();
        // A session in which nothing was counted yet is a sheet to play from.
        if (steps.Count == 0 && session.Now is { } now && routines.GetValueOrDefault(now.Routine) is { } ahead)
            steps = [.. ahead.Steps.Select((_, i) => (now.Routine, i, false, new List<Attempt>()))];
        var (place, page) = (0, 0);
        foreach (var (routine, step, isMirrored, its) in steps.Take(MostBlocks))
        {
            if (place == (page == 0 ? BlocksOfFirst : BlocksOfPage))
            {
                canvas.NextPage();
                (place, page) = (0, page + 1);
            }
            if (routines.GetValueOrDefault(routine) is { } known && step < known.Steps.Count)
                Draw(canvas, 30 + place * Block, (known, known.StepAt(step, isMirrored), isMirrored), its);
            place++;
        }
        canvas.Text(Margin, Height - 8, 3, session.Note.ReplaceLineEndings(" "), Soft);
        canvas.Text(Width - Margin, Height - 8, 2.6, "Deep Baize", Soft, anchor: Anchor.End);
        return canvas.ToBytes();
    }

    private static void Draw(ICanvas canvas, double top, (Routine Routine, Step Step, bool IsMirrored) played, List<Attempt> attempts)
    {
        var (routine, step, isMirrored) = played;
        canvas.Line([(Margin, top), (Width - Margin, top)], Line, 0.25);
        var content = CheckedContent.Of(
            new PositionContent
            {
                Balls =
                [
                    .. step.Balls.Select(b => new BallEntry
                    {
                        Id = b.Id,
                        X = b.X,
                        Y = b.Y,
                    }),
                ],
                Stroke = new()
                {
                    Aim = step.Stroke.Aim,
                    Side = step.Stroke.Side,
                    Height = step.Stroke.Height,
                    Pace = step.Stroke.Pace,
                    Pot = step.Stroke.Pot is { } pot
                        ? new()
                        {
                            Ball = pot.Ball,
                            Pocket = pot.Pocket,
                            Through = pot.Through,
                            Off = pot.Off,
                        }
                        : null,
                },
            }
        );
        PlanDrawing.Draw(canvas, content, (Margin, top + 4, PlanWidth));
        var scale = PlanWidth / (Dimensions.Length + 2 * PlanDrawing.Border);
        foreach (var (attempt, i) in attempts.Select((a, i) => (a, i)))
        {
            if (attempt is not { WhiteX: { } x, WhiteY: { } y })
                continue;
            var (px, py) = (Margin + (x + PlanDrawing.Border) * scale, top + 4 + (Dimensions.Width + PlanDrawing.Border - y) * scale);
            canvas.Disc(px, py, 1.5, attempt.IsDone ? "#f2ead2" : null, attempt.IsDone ? Done : Not, 0.3);
            canvas.Text(px, py + 0.8, 2, Number(i + 1), attempt.IsDone ? Done : Not, anchor: Anchor.Middle);
        }
        const double left = Margin + PlanWidth + 6;
        var line = top + 8;
        void Say(string text, double size = 3.3, string colour = Ink, bool bold = false)
        {
            canvas.Text(left, line, size, text.Length > 62 ? text[..61] + "…" : text, colour, bold);
            line += size * 1.35;
        }
        Say(routine.Name, 4.2, bold: true);
        Say(step.Label + (isMirrored ? ", from the other side" : ""), colour: Soft);
        Say(attempts.Count == 0 ? "Done:            of" : $"{attempts.Count(a => a.IsDone)} of {attempts.Count} done", bold: true);
        var causes = attempts.SelectMany(a => a.Reasons).GroupBy(r => r).OrderByDescending(g => g.Count()).ToList();
        if (causes.Count > 0)
            Say(string.Join(", ", causes.Select(c => $"{c.Key} {c.Count()}")), colour: Not);
        if (attempts.Any(a => a.Score is not null))
            Say("Scores: " + string.Join(", ", attempts.Where(a => a.Score is not null).Select(a => Number(a.Score!.Value))));
        Say("From the nearer end and side cushion, mm:", 2.9, Soft);
        foreach (var ball in step.Balls.Where(b => !IsOnSpot(b)).Take(8))
            Say($"{ball.Id.Replace('-', ' ')}: {End(ball)}, {Side(ball)}", 2.9);
        foreach (var note in attempts.Where(a => a.Note != "").Take(2))
            Say(note.Note, 2.9, Done);
    }

    private static string Number(int value) => value.ToString(CultureInfo.InvariantCulture);

    private static bool IsOnSpot(LaidBall ball) =>
        Ball.TryParse(ball.Id, out var known) && known.IsColour && Dimensions.Spot(known).DistanceTo(new(ball.X, ball.Y)) < 0.002;

    private static string End(LaidBall ball) =>
        ball.X < Dimensions.Length / 2 ? $"{Millimetres(ball.X)} from baulk" : $"{Millimetres(Dimensions.Length - ball.X)} from the top";

    private static string Side(LaidBall ball) =>
        ball.Y < Dimensions.Width / 2
            ? $"{Millimetres(ball.Y)} from the yellow's side"
            : $"{Millimetres(Dimensions.Width - ball.Y)} from the green's side";

    private static string Millimetres(double metres) => Number((int)Math.Round(metres * 1000));
}
