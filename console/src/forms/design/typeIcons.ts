/** A sign for each type of field. */

import {
  AlignLeftOutlined, CalendarOutlined, CheckCircleOutlined, CheckSquareOutlined, ContainerOutlined, DownSquareOutlined,
  EnvironmentOutlined, EyeInvisibleOutlined, FileOutlined, FontSizeOutlined, FunctionOutlined, InfoCircleOutlined,
  LineOutlined, LinkOutlined, MailOutlined, NumberOutlined, PhoneOutlined, UnorderedListOutlined,
} from "@ant-design/icons";

export const TYPE_ICONS: Record<string, typeof LineOutlined> = {
  text: LineOutlined,
  long_text: AlignLeftOutlined,
  number: NumberOutlined,
  date: CalendarOutlined,
  choice: DownSquareOutlined,
  choices: UnorderedListOutlined,
  yes_no: CheckSquareOutlined,
  email: MailOutlined,
  phone: PhoneOutlined,
  hidden: EyeInvisibleOutlined,
  consent: CheckCircleOutlined,
  heading: FontSizeOutlined,
  note: InfoCircleOutlined,
  formula: FunctionOutlined,
  link: LinkOutlined,
  page: FileOutlined,
  section: ContainerOutlined,
  slot: EnvironmentOutlined,
};
