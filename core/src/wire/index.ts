export { arp, type ArpPacket } from './arp';
export {
  DecodeError,
  decodeWith,
  encodeWith,
  fromLatin1,
  readIpv4,
  toLatin1,
  u16,
  type Codec,
} from './codec';
export {
  BROADCAST_FLAG,
  DHCP_PORT,
  dhcpMessage,
  dhcpMessageOf,
  kindOfMessage,
  MESSAGE_TYPES,
  messageTypeCode,
  messageTypeOf,
  type DhcpMessage,
  type MessageType,
  type UnknownType,
} from './dhcp/message';
export {
  findOption,
  OPTION,
  optionName,
  rawOption,
  type OptionCodec,
  type RawOption,
} from './dhcp/options';
export {
  BLOCK,
  discovery,
  DISCOVERY_GROUP,
  discoveryFrame,
  QUALIFIER,
  type DiscoveryBlock,
  type DiscoveryMessage,
} from './discovery';
export {
  ASSEMBLY,
  CIP_SERVICE,
  CIP_STATUS,
  cipReply,
  cipRequest,
  type CipReply,
  type CipRequest,
} from './enip/cip';
export {
  encapsulation,
  encapsulationSize,
  ENIP_COMMAND,
  ENIP_PORT,
  packetItems,
  unconnected,
  type Encapsulation,
} from './enip/encapsulation';
export {
  connectionStateOf,
  IDENTITY_OBJECT,
  identityAnswer,
  identityObject,
  isInUse,
  type ConnectionState,
  type Identity,
  type IdentityObject,
} from './enip/identity';
export {
  CONNECTION_MANAGER,
  portPath,
  UNCONNECTED_SEND,
  unconnectedSend,
  type PortSegment,
  type UnconnectedSend,
} from './enip/port-path';
export {
  CAPABILITY,
  dword,
  interfaceConfiguration,
  pinnedControl,
  sourceOf,
  TCPIP_OBJECT,
  tcpipPath,
} from './enip/tcpip-object';
export {
  ethernet,
  ETHERTYPE,
  receiverOf,
  senderOf,
  vlanOf,
  withTag,
  type EthernetFrame,
} from './ethernet';
export {
  arpFrame,
  dhcpFrame,
  dissect,
  ipFrame,
  tryDissect,
  udpPacket,
  type Dissected,
} from './frame';
export { parseHex, toHex } from './hex';
export { icmp, type IcmpMessage } from './icmp';
export { dropMessage, droppedEchoOf, type Drop, type DroppedEcho } from './icmp-error';
export { identification, type Identification } from './identification';
export { ipv4Packet, ipv4PacketOf, PROTOCOL, type Ipv4Packet } from './ipv4-packet';
export { lldp, neighbourOf, type Neighbour } from './lldp';
export {
  MODBUS_OBJECT,
  MODBUS_PORT,
  modbusMessage,
  modbusReply,
  modbusRequest,
  modbusSize,
  type ModbusReply,
  type ModbusRequest,
} from './modbus';
export { captureIssue, CaptureReader, framesOfCapture, isCapture } from './capture-file';
export { OWN_PCAP, pcapHeader, pcapRecord, type PcapRecord } from './pcap';
export { treeBridgeOf, type TreeBridge } from './spanning-tree';
export {
  answerToSet,
  blocksOfStation,
  identifyAll,
  identifyName,
  nameAskedFor,
  orderOf,
  outcomeOf,
  responseWindow,
  STATION_REFUSALS,
  stationOf,
  type Station,
  type StationOrder,
  type StationRefusal,
  type Stay,
} from './station';
export {
  realModules,
  RECORD,
  RECORD_PORT,
  recordAnswer,
  recordQuestion,
  type RealModule,
  type RecordAnswer,
  type RecordQuestion,
} from './station-record';
export { tcp, TCP_FLAG, type TcpSegment } from './tcp';
export { udp, type UdpEnds } from './udp';
