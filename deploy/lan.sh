# Lets the shop's tablets in over the local network, by HTTPS with an authority of the shop's own; sourced by ./yard.
# The authority may vouch for private addresses and this machine's only, so that its key is worth nothing elsewhere.

LAN_DAYS=397

lan_addresses() { hostname -I 2> /dev/null | tr ' ' '\n' | grep -E '^[0-9]+\.[0-9]+\.[0-9]+\.[0-9]+$' | grep -v '^127\.' | sort -u; }

make_authority() {
  local tls=$1 permitted="permitted;IP:10.0.0.0/255.0.0.0,permitted;IP:172.16.0.0/255.240.0.0,permitted;IP:192.168.0.0/255.255.0.0" address
  for address in $(lan_addresses); do permitted="$permitted,permitted;IP:$address/255.255.255.255"; done
  permitted="$permitted,permitted;DNS:$(hostname),permitted;DNS:$(hostname).local"
  (umask 077
    openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -noenc -days 3650 -subj "/CN=Vast Yard, authority of this shop" \
      -addext "basicConstraints=critical,CA:TRUE,pathlen:0" -addext "keyUsage=critical,keyCertSign,cRLSign" \
      -addext "nameConstraints=critical,$permitted" -keyout "$tls/authority.key" -out "$tls/authority.crt") > "$LOGS/tls.log" 2>&1 \
    || fail "the shop's certificate authority could not be made; see $LOGS/tls.log."
}

# One for every address and name of this machine; made anew when one of them is missing or the year is nearly over.
make_certificate() {
  local tls=$1 names="" address
  for address in $(lan_addresses); do names="${names}IP:$address,"; done
  names="${names}DNS:$(hostname),DNS:$(hostname).local"
  [ "$(cat "$tls/names" 2> /dev/null)" = "$names" ] && openssl x509 -in "$tls/server.crt" -noout -checkend 2592000 > /dev/null 2>&1 \
    && openssl verify -CAfile "$tls/authority.crt" "$tls/server.crt" > /dev/null 2>&1 && return 0
  printf 'basicConstraints=critical,CA:FALSE\nkeyUsage=critical,digitalSignature\nextendedKeyUsage=serverAuth\nsubjectAltName=%s\n' "$names" > "$tls/server.ext"
  (umask 077
    openssl req -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -noenc -subj "/CN=Vast Yard" -keyout "$tls/server.key" -out "$tls/server.csr" \
      && openssl x509 -req -in "$tls/server.csr" -CA "$tls/authority.crt" -CAkey "$tls/authority.key" -CAcreateserial \
        -days $LAN_DAYS -sha256 -extfile "$tls/server.ext" -out "$tls/server.crt") > "$LOGS/tls.log" 2>&1 \
    || fail "the certificate for tablets could not be made; see $LOGS/tls.log."
  openssl verify -CAfile "$tls/authority.crt" "$tls/server.crt" > "$LOGS/tls.log" 2>&1 \
    || fail "this machine has an address its own authority may not vouch for; remove $tls and start again (every tablet must then trust the new authority)."
  printf %s "$names" > "$tls/names"
}

lan_fingerprint() { openssl x509 -in "$1/authority.crt" -noout -fingerprint -sha256 | cut -d= -f2; }

# Writes what nginx needs to let tablets in; without --lan, that nobody is.
prepare_lan() {
  rm -f "$RUN/lan.conf"
  [ -n "${LAN:-}" ] || return 0
  local tls=$STATE/tls address listen_page="" listen_site="" list=""
  [ -n "$(lan_addresses)" ] || fail "this machine has no address on a local network, so no tablet could reach it."
  for address in $(lan_addresses); do
    alive nginx || ! port_open_at "$address" "$LAN_PORT" || fail "port $LAN_PORT is already in use at $address; set YARD_LAN_PORT to another."
    listen_page="$listen_page listen $address:$LAN_PORT;"
    listen_site="$listen_site listen $address:$((LAN_PORT + 1)) ssl;"
    list="$list<li><a href=\"https://$address:$((LAN_PORT + 1))/\">https://$address:$((LAN_PORT + 1))/</a></li>"
  done
  mkdir -p "$tls" "$STATE/trust" && chmod 700 "$tls"
  [ -s "$tls/authority.key" ] || make_authority "$tls"
  make_certificate "$tls"
  cp "$tls/authority.crt" "$STATE/trust/authority.crt"
  sed -e "s|@FINGERPRINT@|$(lan_fingerprint "$tls")|; s|@ADDRESSES@|$list|; s|@UNTIL@|$(openssl x509 -in "$tls/authority.crt" -noout -enddate | cut -d= -f2)|" \
    deploy/trust.html.template > "$STATE/trust/index.html"
  chmod -R a+rX "$STATE/trust"
  render lan.conf
  sed -i -e "s|@LISTEN_PAGE@|$listen_page|; s|@LISTEN_SITE@|$listen_site|" "$RUN/lan.conf"
}

port_open_at() { (exec 3<> "/dev/tcp/$1/$2") 2> /dev/null; }

say_lan() {
  local address
  say "For tablets on this network:"
  for address in $(lan_addresses); do
    say "  first, once   http://$address:$LAN_PORT   how to trust this shop"
    say "  then          https://$address:$((LAN_PORT + 1))"
  done
  say "  fingerprint of the shop's authority, to compare on the tablet:"
  say "  $(lan_fingerprint "$STATE/tls")"
  say "The demo's PINs are printed in its papers: change them under People before letting anybody in."
}
