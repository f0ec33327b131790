using System.ComponentModel;
using System.Globalization;
using DeepBaize.Core;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Records;

/// <summary>
/// Which part of a list is wanted. The answer is that part; how many there are in all stands in the header Total-Count, and where the next
/// part is in Link (RFC 8288).
/// </summary>
internal sealed record PageQuery
{
    private const string TotalHeader = "Total-Count";
    private const int MostAtOnce = 200,
        MostSkipped = 1_000_000;

    [Description("So many are left out, the first of the list.")]
    [FromQuery(Name = "skip")]
    public int? Skip { get; init; }

    [Description("So many at most; 50 if it is not said.")]
    [FromQuery(Name = "take")]
    public int? Take { get; init; }

    /// <exception cref="InputException">Out of range.</exception>
    public async Task<List<T>> OfAsync<T>(IQueryable<T> ordered, HttpContext http)
    {
        var (skip, take) = (Skip ?? 0, Take ?? 50);
        var checks = new Checks();
        checks.Range("skip", skip, 0, MostSkipped);
        checks.Range("take", take, 1, MostAtOnce);
        checks.ThrowIfAny();
        var found = await ordered.Skip(skip).Take(take).ToListAsync(http.RequestAborted);
        // A list that is not full has its end in it.
        var total =
            found.Count < take && (found.Count > 0 || skip == 0) ? skip + found.Count : await ordered.CountAsync(http.RequestAborted);
        http.Response.Headers[TotalHeader] = total.ToString(CultureInfo.InvariantCulture);
        if (skip + found.Count < total)
            http.Response.Headers.Link = $"<{Address(http.Request, skip + take, take)}>; rel=\"next\"";
        return found;
    }

    private static string Address(HttpRequest request, int skip, int take)
    {
        var query = request.Query.ToDictionary(q => q.Key, q => (string?)q.Value.ToString());
        (query["skip"], query["take"]) = (skip.ToString(CultureInfo.InvariantCulture), take.ToString(CultureInfo.InvariantCulture));
        return QueryHelpers.AddQueryString(request.Path.ToUriComponent(), query);
    }
}
