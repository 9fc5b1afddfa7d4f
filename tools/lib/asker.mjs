import { Server } from 'node:http';
import { BlockList, isIP } from 'node:net';
import { SetupError } from './say.mjs';

/** Who asks is told by the connection; a header says it only where it comes from a proxy that is named in CLEMBO_PROXIES. */

/** An address as it is compared: of IPv4 that is written as IPv6, the IPv4. */
const plain = (address) => (address ?? '').trim().replace(/^::ffff:(?=\d+\.)/i, '');

/** The proxies of a setting such as `10.0.0.7, 192.168.0.0/16`. @throws SetupError for what is no address */
export function namedProxies(setting = '') {
  const list = new BlockList();
  for (const part of setting.split(',').map((p) => p.trim())) {
    if (part === '') continue;
    const [address, bits] = part.split('/');
    const family = isIP(address);
    const most = family === 4 ? 32 : 128;
    if (family === 0 || (bits !== undefined && !(/^\d+$/.test(bits) && Number(bits) <= most)))
      throw new SetupError(`CLEMBO_PROXIES: “${part}” is no address. Name proxies as in 10.0.0.7 or 10.0.0.0/8.`);
    if (bits === undefined) list.addAddress(address, `ipv${family}`);
    else list.addSubnet(address, Number(bits), `ipv${family}`);
  }
  return (text) => {
    const address = plain(text);
    return isIP(address) !== 0 && list.check(address, `ipv${isIP(address)}`);
  };
}

/** The last of those on the way of a request who is not one of our own proxies. */
export function askerOf(remote, forwarded, isProxy) {
  const way = [...(forwarded ?? '').split(',').map(plain).filter(Boolean), plain(remote)];
  while (way.length > 1 && isProxy(way.at(-1))) way.pop();
  return way.at(-1);
}

/** Has every request of this process say who asks, in the header that the application reads. */
export function tellAskers(setting) {
  const isProxy = namedProxies(setting);
  const emit = Server.prototype.emit;
  Server.prototype.emit = function (event, ...args) {
    const request = args[0];
    if (event === 'request' || event === 'upgrade')
      request.headers['x-forwarded-for'] = askerOf(
        request.socket.remoteAddress,
        [request.headers['x-forwarded-for']].flat().filter(Boolean).join(','),
        isProxy,
      );
    return emit.call(this, event, ...args);
  };
}
