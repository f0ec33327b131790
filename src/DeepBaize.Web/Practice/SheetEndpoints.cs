using DeepBaize.Core.Practice;
using DeepBaize.Data;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using QRCoder;

namespace DeepBaize.Web.Practice;

/// <summary>What of a session goes to another device, or on paper.</summary>
public static class SheetEndpoints
{
    private static readonly RecordKind Kind = new("session", "It may have been deleted, or not been sent yet.", "Look at it again.");

    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/practice/sessions/{id:guid}").WithTags("Practice").ProducesProblem(503);
        group
            .MapGet("qr.svg", (Guid id, HttpRequest request) =>
            {
                using var code = QRCodeGenerator.GenerateQrCode(
                    $"{request.Scheme}://{request.Host}/practice/sessions/{id}",
                    QRCodeGenerator.ECCLevel.M
                );
                return TypedResults.Text(new SvgQRCode(code).GetGraphic(8), "image/svg+xml");
            })
            .WithName("sessionCode")
            .WithSummary("The session's address as a QR code")
            .Produces<string>(200, "image/svg+xml");
        group
            .MapGet(
                "sheet.pdf",
                async Task<Results<FileContentHttpResult, ProblemHttpResult>> (Guid id, DeepBaizeContext db, CancellationToken cancel) =>
                {
                    if (
                        await db
                            .Sessions.AsNoTracking()
                            .SingleOrDefaultAsync(s => s.OwnerId == User.LocalId && s.Id == id && s.DeletedAt == null, cancel)
                        is not { } session
                    )
                        return Kind.Missing();
                    var attempts = await db
                        .Attempts.AsNoTracking()
                        .Where(a => a.SessionId == id && !a.IsWithdrawn)
                        .OrderBy(a => a.At)
                        .ThenBy(a => a.Id)
                        .ToListAsync(cancel);
                    var player = await db.Players.AsNoTracking().SingleOrDefaultAsync(p => p.Id == session.PlayerId, cancel);
                    var table = await db.Tables.AsNoTracking().SingleOrDefaultAsync(t => t.Id == session.TableId, cancel);
                    var routines = new Dictionary<string, Routine?>();
                    foreach (var routine in attempts.Select(a => a.Routine).Append(session.Now?.Routine).OfType<string>().Distinct())
                        routines[routine] = await db.RoutineAsync(routine, cancel);
                    var pdf = SessionSheet.Draw(session, attempts, routines, (player?.Name ?? "", table?.Name ?? ""));
                    return TypedResults.File(pdf, "application/pdf", $"session-{session.StartedAt:yyyy-MM-dd}.pdf");
                }
            )
            .WithName("sessionSheet")
            .WithSummary("The session's sheet: its layouts in mm, what was counted, and room to write")
            .Produces<byte[]>(200, "application/pdf")
            .ProducesProblem(404);
    }
}
