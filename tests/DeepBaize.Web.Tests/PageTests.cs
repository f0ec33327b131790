using System.Net;

namespace DeepBaize.Web.Tests;

/// <summary>One document for every place of the page; files that are kept for good; the API's own answers untouched by it.</summary>
[Collection("application")]
public class PageTests(Application app)
{
    [Theory]
    [InlineData("/")]
    [InlineData("/table/01a21774-9ff4-7f1a-94ac-0b09f4a0ec39/break?plan=2")]
    [InlineData("/frames")]
    [InlineData("/there/is/nothing")]
    public async Task Every_place_is_the_same_document_asked_for_each_time(string path)
    {
        using var response = await app.Client.GetAsync(path);
        Assert.Equal("text/html", response.Content.Headers.ContentType!.MediaType);
        Assert.True(response.Headers.CacheControl!.NoCache);
        Assert.Contains("<div id=\"app\">", await response.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task What_is_not_in_the_API_is_no_place_of_the_page()
    {
        var (status, body) = await app.Send(HttpMethod.Get, "/api/nothing");
        Assert.Equal(404, status);
        Assert.Equal("notFound", body["code"]!.GetValue<string>());
        Assert.Equal(405, (await app.Send(HttpMethod.Get, "/api/shot")).Status);
        using var missing = await app.Client.GetAsync("/assets/gone.js");
        Assert.Equal(HttpStatusCode.NotFound, missing.StatusCode);
    }

    [Theory]
    [InlineData(".js", "text/javascript")]
    [InlineData(".css", "text/css")]
    public async Task Files_named_by_their_contents_are_kept_for_good_and_come_compressed_where_they_may(string ending, string type)
    {
        var document = await app.Client.GetStringAsync("/");
        var path = document.Split('"').First(part => part.StartsWith("/assets/") && part.EndsWith(ending));
        using var plain = await app.Client.GetAsync(path);
        using var request = new HttpRequestMessage(HttpMethod.Get, path) { Headers = { { "Accept-Encoding", "gzip, br" } } };
        using var small = await app.Client.SendAsync(request);
        foreach (var response in (HttpResponseMessage[])[plain, small])
        {
            Assert.Equal(type, response.Content.Headers.ContentType!.MediaType);
            Assert.Equal("public, max-age=31536000, immutable", response.Headers.CacheControl!.ToString());
        }
        Assert.Empty(plain.Content.Headers.ContentEncoding);
        Assert.Equal(["br"], small.Content.Headers.ContentEncoding);
        Assert.True((await small.Content.ReadAsByteArrayAsync()).Length < (await plain.Content.ReadAsByteArrayAsync()).Length / 2);
    }
}
