using DeepBaize.Core;
using DeepBaize.Core.Strokes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Drawing;

/// <summary>A line of figures on a card.</summary>
public sealed record CardRow
{
    public required string Label { get; init; }
    public required string Value { get; init; }
}

/// <summary>What goes on a shot card: the shot, and its words as the page says them.</summary>
public sealed record CardRequest
{
    public required string Name { get; init; }
    public required PositionContent Content { get; init; }
    public IReadOnlyList<CardRow> Rows { get; init; } = [];
    public IReadOnlyList<string> Lines { get; init; } = [];
    public string Note { get; init; } = "";
    public GoalEntry? Goal { get; init; }

    /// <summary>Lines of other strokes, each with a name of its own.</summary>
    public IReadOnlyList<Trace> Traces { get; init; } = [];
}

/// <summary>A card of half an A4 sheet: plan, strike, figures, and the line to take down.</summary>
public static class ShotCard
{
    public const double Width = 210,
        Height = 148;
    public const int MostOnSheet = 24;
    private const double Margin = 9,
        PlanWidth = 134,
        Column = Margin + PlanWidth + 6;
    private const int MostRows = 12,
        MostLines = 4;
    private const string Paper = "#ffffff",
        Ink = "#1c2624",
        Soft = "#5a6661",
        Brass = "#8a6510",
        Line = "#c9c2ad";

    /// <exception cref="InputException">A position that cannot be, or too much text.</exception>
    public static void Draw(ICanvas canvas, CardRequest card)
    {
        var content = CheckedContent.Of(card.Content);
        if (card.Rows.Count > MostRows)
            throw new InputException("rows", $"There are {card.Rows.Count} rows.", $"at most {MostRows}");
        if (card.Lines.Count > MostLines)
            throw new InputException("lines", $"There are {card.Lines.Count} lines.", $"at most {MostLines}");
        if (
            card
                .Lines.Append(card.Name)
                .Append(card.Note)
                .Concat(card.Rows.SelectMany(r => new[] { r.Label, r.Value }))
                .Any(t => t.Length > 400)
        )
            throw new InputException("lines", "A text is too long for the card.", "at most 400 characters each");

        canvas.Rectangle(0, 0, Width, Height, Paper);
        canvas.Text(Margin, 13, 6.2, Fit(card.Name, 6.2, Width - 2 * Margin), Ink, bold: true);
        const double top = 18;
        PlanDrawing.Draw(
            canvas,
            content,
            (Margin, top, PlanWidth),
            card.Goal?.ToGoal(content) as StopIn,
            CompareSheet.Checked(card.Traces, "traces")
        );
        Face(canvas, content.Stroke, (Column + Width - Margin) / 2, top + 19, 17);
        PaceScale(canvas, content.Stroke.Pace, Column, top + 43);
        var y = top + 54.0;
        foreach (var row in card.Rows)
        {
            canvas.Text(Column, y, 3.1, row.Label, Soft);
            canvas.Text(Width - Margin, y, 3.1, row.Value, Ink, bold: true, Anchor.End);
            y += 4.6;
        }
        y = top + PlanWidth * PlanDrawing.Aspect + 7;
        foreach (var text in card.Lines)
            foreach (var line in Wrap(text, 3.9, PlanWidth).Take(3))
            {
                canvas.Text(Margin, y, 3.9, line, Ink);
                y += 5;
            }
        canvas.Line([(Margin, Height - 16), (Width - Margin, Height - 16)], Line, 0.25);
        // Without a note, a rule to write on.
        if (card.Note.Length > 0)
            canvas.Text(Margin, Height - 9.5, 4.6, Fit(card.Note, 4.6, Width - 2 * Margin), Brass, bold: true);
        else
            canvas.Line([(Margin, Height - 7), (Width - Margin, Height - 7)], Line, 0.25);
        canvas.Text(Width - Margin, Height - 3, 2.4, "Deep Baize", Soft, anchor: Anchor.End);
    }

    /// <summary>The cue ball's face with the tip's place, half-tip marks and the miscue limit.</summary>
    private static void Face(ICanvas canvas, in Stroke stroke, double x, double y, double radius)
    {
        // One tip on the paper: the whole ball is drawn, the contact is at the fraction of its radius.
        var tip = Tip.Fraction(1) * radius;
        canvas.Disc(x, y, radius, "#efe8d3", Ink, 0.3);
        canvas.Disc(x, y, Core.Physics.Strike.MiscueLimit * radius, null, "#a8321b", 0.25);
        canvas.Line([(x - radius, y), (x + radius, y)], Line, 0.2);
        canvas.Line([(x, y - radius), (x, y + radius)], Line, 0.2);
        for (var half = -1.5; half <= 1.5; half += 0.5)
        {
            canvas.Line([(x + half * tip, y - 0.8), (x + half * tip, y + 0.8)], Soft, 0.2);
            canvas.Line([(x - 0.8, y + half * tip), (x + 0.8, y + half * tip)], Soft, 0.2);
        }
        canvas.Disc(x + stroke.SideTips * tip, y - stroke.HeightTips * tip, 1.8, "#12484b", Paper, 0.3);
    }

    private static void PaceScale(ICanvas canvas, double pace, double x, double y)
    {
        const double step = (Width - Margin - Column) / 9;
        canvas.Line([(x, y), (x + 9 * step, y)], Soft, 0.3);
        for (var n = 1; n <= 10; n++)
        {
            canvas.Line([(x + (n - 1) * step, y - 0.9), (x + (n - 1) * step, y + 0.9)], Soft, 0.3);
            canvas.Text(
                x + (n - 1) * step,
                y + 4.2,
                2.6,
                n.ToString(System.Globalization.CultureInfo.InvariantCulture),
                Soft,
                anchor: Anchor.Middle
            );
        }
        canvas.Disc(x + (pace - 1) * step, y, 1.5, "#12484b");
    }

    /// <summary>An em of this face takes about this share of itself in breadth, on the average.</summary>
    private const double Breadth = 0.47;

    internal static string Fit(string text, double size, double width)
    {
        var most = (int)(width / (size * Breadth));
        return text.Length <= most ? text : text[..(most - 1)] + "…";
    }

    internal static IEnumerable<string> Wrap(string text, double size, double width)
    {
        var most = (int)(width / (size * Breadth));
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (line.Length > 0 && line.Length + 1 + word.Length > most)
            {
                yield return line;
                line = "";
            }
            line = line.Length == 0 ? word : $"{line} {word}";
        }
        if (line.Length > 0)
            yield return line;
    }
}

/// <summary>The cards of a plan, two on each sheet of A4, in the order in which they are played.</summary>
public sealed record CardSheetRequest
{
    public required string Name { get; init; }
    public required IReadOnlyList<CardRequest> Cards { get; init; }
}

public static class ShotCardEndpoints
{
    public static void MapShotCards(this IEndpointRouteBuilder app)
    {
        app.MapPost("/api/compare/sheet", (CompareSheetRequest sheet) =>
            {
                using var canvas = new PdfCanvas(CompareSheet.Width, CompareSheet.Height, sheet.Name);
                CompareSheet.Draw(canvas, sheet);
                return TypedResults.File(canvas.ToBytes(), "application/pdf");
            })
            .WithTags("Comparing")
            .WithName("compareSheet")
            .WithSummary("Strokes side by side on a sheet to print")
            .Produces<byte[]>(200, "application/pdf")
            .ProducesProblem(400);
        var group = app.MapGroup("/api/card").WithTags("Shots").ProducesProblem(400);
        group
            .MapPost("/pdf", (CardRequest card) =>
            {
                using var canvas = new PdfCanvas(ShotCard.Width, ShotCard.Height, card.Name);
                ShotCard.Draw(canvas, card);
                return TypedResults.File(canvas.ToBytes(), "application/pdf");
            })
            .WithName("cardPdf")
            .WithSummary("A shot card to print")
            .Produces<byte[]>(200, "application/pdf");
        group
            .MapPost("/sheet/pdf", (CardSheetRequest sheet) =>
            {
                if (sheet.Cards.Count is 0 or > ShotCard.MostOnSheet)
                    throw new InputException("cards", $"There are {sheet.Cards.Count} cards.", $"1 to {ShotCard.MostOnSheet}");
                using var canvas = new PdfCanvas(ShotCard.Width, 2 * ShotCard.Height + 1, sheet.Name);
                for (var i = 0; i < sheet.Cards.Count; i++)
                {
                    if (i > 0 && i % 2 == 0)
                        canvas.NextPage();
                    canvas.Down(i % 2 * (ShotCard.Height + 1));
                    ShotCard.Draw(canvas, sheet.Cards[i]);
                }
                return TypedResults.File(canvas.ToBytes(), "application/pdf");
            })
            .WithName("cardSheetPdf")
            .WithSummary("The cards of a plan to print, two on a sheet")
            .Produces<byte[]>(200, "application/pdf");
        group
            .MapPost("/svg", (CardRequest card) =>
            {
                var canvas = new SvgCanvas(ShotCard.Width, ShotCard.Height, card.Name, card.Note);
                ShotCard.Draw(canvas, card);
                return TypedResults.Text(canvas.ToString(), "image/svg+xml");
            })
            .WithName("cardSvg")
            .WithSummary("A shot card as an SVG drawing");
    }
}
