using System.Net.Sockets;

namespace DeepBaize.Web.Safeguards;

/// <summary>Who asks, as far as limits go: an address, of IPv6 the network it is in.</summary>
internal static class Clients
{
    private const int BytesOfNetwork = 8;

    public static string Of(HttpContext http)
    {
        var address = http.Connection.RemoteIpAddress;
        if (address is { IsIPv4MappedToIPv6: true })
            address = address.MapToIPv4();
        return address?.AddressFamily == AddressFamily.InterNetworkV6
            ? Convert.ToHexString(address.GetAddressBytes().AsSpan(0, BytesOfNetwork))
            : address?.ToString() ?? "here";
    }
}
